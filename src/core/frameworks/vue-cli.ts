import { byDefault } from '../model/reading.ts'
import { member } from '../syntax/value.ts'
import type { Framework } from './framework.ts'
import { memberNames, option, path, readingsWith, text, usualEnvironmentFiles } from './readings.ts'

const by = "Vue CLI's default"

/** Vue CLI. Checked against 5.0. */
export const vueCli: Framework = {
  name: 'vue-cli',
  title: 'Vue CLI',
  markers: ['@vue/cli-service'],
  configFiles: ['vue.config.js', 'vue.config.cjs', 'vue.config.mjs', 'vue.config.ts'],
  shipsMaps: true,
  commands: ['vue-cli-service build'],
  environmentExpansion: 'older',
  environmentFiles: usualEnvironmentFiles,
  configArgument: () => ({}),
  environmentObjects: ['process.env'],
  read: ({ build, config }) => {
    const value = config?.value ?? null
    const mode = option(build, 'mode') ?? byDefault('production', by)
    return readingsWith(by, {
      publishDirectory: path(option(build, 'dest') ?? text(value, 'outputDir') ?? byDefault('dist', by)),
      basePath: option(build, 'public-path') ?? text(value, 'publicPath') ?? byDefault('/', by),
      mode,
      prefixes: byDefault(['VUE_APP_'], by),
      environmentFiles: usualEnvironmentFiles(mode.value ?? 'production'),
      devProxy: memberNames(member(value, 'devServer', 'proxy')) ?? byDefault([], by),
    })
  },
  placeholders: /^<%[=-]?\s*(?:BASE_URL|VUE_APP_\w+|htmlWebpackPlugin\b.*)/,
  signs: { files: [/^js\/chunk-vendors\.[\da-f]{8}\.js$/] },
  fixes: { setBase: (base) => `publicPath: '${base}',`, environmentFile: '.env.production' },
}
