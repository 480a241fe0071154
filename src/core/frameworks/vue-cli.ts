import { defineFramework } from './framework.ts'
import { usualEnvironmentFiles } from './readings.ts'

/** Vue CLI. Checked against 5.0. */
export const vueCli = defineFramework({
  name: 'vue-cli',
  title: 'Vue CLI',
  over: ['vite'],
  markers: ['@vue/cli-service'],
  configFiles: ['vue.config.js', 'vue.config.cjs', 'vue.config.mjs', 'vue.config.ts'],
  shipsMaps: true,
  commands: ['vue-cli-service build'],
  environmentExpansion: 'older',
  nodeEnvironment: (mode) => (mode === 'production' || mode === 'test' ? mode : 'development'),
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { options: ['dest'], config: ['outputDir'], default: 'dist' },
    basePath: { options: ['public-path'], config: ['publicPath'], default: '/' },
    mode: { options: ['mode'] },
    prefixes: ['VUE_APP_'],
    devProxy: ['devServer.proxy'],
  },
  placeholders: /^<%[=-]?\s*(?:BASE_URL|VUE_APP_\w+|htmlWebpackPlugin\b.*)/,
  signs: { files: [/^js\/chunk-vendors\.[\da-f]{8}\.js$/] },
  fixes: {
    setBase: (base) => `publicPath: '${base}',`,
    newConfig: (setting) => ({ file: 'vue.config.js', text: `module.exports = {\n  ${setting}\n}\n` }),
    publicUrl: { write: (path) => `\`\${process.env.BASE_URL}${path}\`` },
    environmentFile: '.env.production',
    noMaps: 'in vue.config.js, set  productionSourceMap: false',
  },
})
