import { viteBundler } from '@vuepress/bundler-vite'
import { defaultTheme } from '@vuepress/theme-default'
import { defineUserConfig } from 'vuepress'

export default defineUserConfig({
  base: '/crossings/',
  bundler: viteBundler(),
  theme: defaultTheme({ navbar: ['/harbours.md'] }),
})
