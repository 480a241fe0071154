import preact from '@preact/preset-vite'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  plugins: [preact()],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
