import { tanstackStart } from '@tanstack/react-start/plugin/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [tanstackStart({ prerender: { enabled: true, crawlLinks: true } }), react()],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
