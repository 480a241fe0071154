export default defineNuxtConfig({
  compatibilityDate: '2025-07-15',
  telemetry: false,
  runtimeConfig: { public: { chartServer: '' } },
  app: { baseURL: '/crossings/' },
  nitro: { devProxy: { '/api': 'http://localhost:8787' } },
})
