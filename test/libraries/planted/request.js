function send(method, url) {
  const request = new XMLHttpRequest()
  request.open(method, url)
  request.send()
}

export const refresh = () => send('GET', 'http://127.0.0.1:8815/v1/refresh')
