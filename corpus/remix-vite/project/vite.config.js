import { vitePlugin as remix } from '@remix-run/dev'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  plugins: [remix({ ssr: false, basename: '/crossings/' })],
})
