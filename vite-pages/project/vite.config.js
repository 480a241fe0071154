import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  build: { rollupOptions: { input: ['index.html', 'about/index.html'] } },
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
