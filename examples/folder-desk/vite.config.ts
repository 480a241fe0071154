import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

/** Served from wherever it is put: every URL is relative. */
export default defineConfig({
  base: './',
  plugins: [react()],
  worker: { format: 'es', rolldownOptions: { output: { codeSplitting: false } } },
  build: { target: 'es2022', chunkSizeWarningLimit: 2_000, modulePreload: { polyfill: false } },
})
