import { defineConfig } from '@solidjs/start/config'

export default defineConfig({
  server: { preset: 'static', baseURL: '/crossings', prerender: { crawlLinks: true, routes: ['/', '/harbours'] } },
  vite: { server: { proxy: { '/api': 'http://localhost:8787' } } },
})
