import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
