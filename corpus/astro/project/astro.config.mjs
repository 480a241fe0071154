import { defineConfig } from 'astro/config'

export default defineConfig({
  site: 'https://skerryline.example',
  base: '/crossings/',
  vite: { server: { proxy: { '/api': 'http://localhost:8787' } } },
})
