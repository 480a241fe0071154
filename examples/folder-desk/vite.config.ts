import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'

/**
 * The page's policy lets nothing in or out. The development server brings styles, its client and the worker in ways that the
 * policy forbids, so there the page goes without; what is built keeps it.
 */
const withoutPolicy: Plugin = {
  name: 'without-policy',
  apply: 'serve',
  transformIndexHtml: {
    order: 'pre',
    handler: (html) => html.replace(/<meta\s+http-equiv="Content-Security-Policy"[^>]*>/, ''),
  },
}

/** Served from wherever it is put: every URL is relative. */
export default defineConfig({
  base: './',
  plugins: [react(), withoutPolicy],
  // The worker's parsers are found before the first folder comes, not then.
  optimizeDeps: { entries: ['index.html', 'src/worker.ts'] },
  worker: { format: 'es', rolldownOptions: { output: { codeSplitting: false } } },
  build: { target: 'es2022', chunkSizeWarningLimit: 2_000, modulePreload: { polyfill: false } },
})
