import { resolve } from 'node:path'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  envDir: resolve(import.meta.dirname, '../../environment'),
  build: { outDir: '../../out/web', emptyOutDir: true },
})
