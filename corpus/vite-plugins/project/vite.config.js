import legacy from '@vitejs/plugin-legacy'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  plugins: [legacy({ targets: ['defaults'] })],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
