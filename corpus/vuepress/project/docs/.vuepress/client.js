import { defineClientConfig } from 'vuepress/client'

export default defineClientConfig({
  setup: () => {
    if (typeof window !== 'undefined') fetch('https://api.skerryline.example/v1/sailings')
  },
})
