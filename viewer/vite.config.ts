import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'

/** The script stands inside a script element, so nothing in it may end that element or open a comment. */
const insideScript: Plugin = {
  name: 'inside-script',
  enforce: 'post',
  generateBundle(_, bundle) {
    for (const file of Object.values(bundle)) {
      if (file.type === 'chunk')
        file.code = file.code.replaceAll(/<\/(?=script)/gi, '<\\/').replaceAll('<!--', '<\\!--')
    }
  },
}

/** One script and one style sheet, which the report holds in itself. */
export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), insideScript],
  build: {
    outDir: '../dist/viewer',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    reportCompressedSize: false,
    modulePreload: false,
    assetsInlineLimit: 0,
    cssCodeSplit: false,
    rolldownOptions: {
      input: 'src/main.tsx',
      output: {
        format: 'iife',
        codeSplitting: false,
        entryFileNames: 'viewer.js',
        assetFileNames: 'viewer[extname]',
      },
    },
  },
})
