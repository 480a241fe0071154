import { defineConfig } from '@rsbuild/core'
import { pluginReact } from '@rsbuild/plugin-react'

export default defineConfig({
  plugins: [pluginReact()],
  source: { entry: { index: './src/main.jsx' } },
  html: { title: 'Skerry Line', mountId: 'app', favicon: './public/mark.svg' },
  server: { base: '/crossings/', proxy: { '/api': 'http://localhost:8787' } },
})
