import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  base: '/crossings/',
  plugins: [react()],
  server: { proxy: { '/api': 'http://localhost:8787' } },
})
