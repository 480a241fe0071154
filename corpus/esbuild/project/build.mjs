import { copyFileSync } from 'node:fs'
import { build } from 'esbuild'

await build({
  entryPoints: ['src/main.js'],
  bundle: true,
  minify: true,
  splitting: true,
  format: 'esm',
  outdir: 'dist',
  publicPath: '/crossings/',
  loader: { '.svg': 'file' },
})
copyFileSync('src/index.html', 'dist/index.html')
