import { defineConfig } from 'vitepress'

export default defineConfig({
  title: 'Skerry Line',
  base: '/crossings/',
  themeConfig: { nav: [{ text: 'Harbours', link: '/harbours' }] },
})
