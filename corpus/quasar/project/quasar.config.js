import { defineConfig } from '#q-app/wrappers'

export default defineConfig(() => ({
  build: { publicPath: '/crossings/', vueRouterMode: 'history' },
  devServer: { proxy: { '/api': 'http://localhost:8787' } },
}))
