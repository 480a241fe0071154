import { copyFileSync, mkdirSync } from 'node:fs'

mkdirSync('dist', { recursive: true })
copyFileSync('src/index.html', 'dist/index.html')

export default {
  input: 'src/main.js',
  output: { dir: 'dist', format: 'es', chunkFileNames: '[name]-[hash].js' },
}
