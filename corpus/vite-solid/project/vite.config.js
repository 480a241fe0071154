import { defineConfig } from 'vite'
import solid from 'vite-plugin-solid'

export default defineConfig({
  base: '/crossings/',
  plugins: [solid()],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
