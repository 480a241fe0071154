import { reactRouter } from '@react-router/dev/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  plugins: [reactRouter()],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
