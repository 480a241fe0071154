import solid from 'vite-plugin-solid'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  plugins: [solid()],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
