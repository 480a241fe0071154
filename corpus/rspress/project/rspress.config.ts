import { defineConfig } from '@rspress/core'

export default defineConfig({
  root: 'docs',
  base: '/crossings/',
  title: 'Skerry Line',
})
