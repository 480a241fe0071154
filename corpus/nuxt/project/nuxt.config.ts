export default defineNuxtConfig({
  compatibilityDate: '2025-07-15',
  telemetry: false,
  app: { baseURL: '/crossings/' },
  nitro: { devProxy: { '/api': 'http://localhost:8787' } },
})
