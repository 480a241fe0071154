import { qwikCity } from '@builder.io/qwik-city/vite'
import { qwikVite } from '@builder.io/qwik/optimizer'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [qwikCity({ trailingSlash: true }), qwikVite()],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
