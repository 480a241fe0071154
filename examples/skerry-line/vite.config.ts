import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  plugins: [react()],
  build: {
    // Small pictures stay files, so that a cache can keep them between releases.
    assetsInlineLimit: 256,
  },
  server: {
    port: 5180,
  },
})
