import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { sample } from './sample/plugin.ts'

/** Served from wherever it is put: every URL is relative. */
export default defineConfig({
  base: './',
  plugins: [react(), sample()],
  build: { target: 'es2022', chunkSizeWarningLimit: 1_000, modulePreload: { polyfill: false } },
})
