self.addEventListener('fetch', (event) => {
  if (event.request.url.endsWith('/fares')) event.respondWith(fetch('http://localhost:8811/v1/fares'))
})
