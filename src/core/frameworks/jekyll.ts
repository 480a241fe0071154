import { byDefault } from '../model/reading.ts'
import type { Framework } from './framework.ts'
import { option, path, readingsWith, text } from './readings.ts'

const by = "Jekyll's default"

/** Jekyll. Checked against 4. */
export const jekyll: Framework = {
  name: 'jekyll',
  title: 'Jekyll',
  markers: [],
  configFiles: ['_config.yml', '_config.yaml', '_config.toml'],
  needsNoManifest: true,
  commands: ['jekyll build'],
  environmentFiles: () => [],
  configArgument: () => ({}),
  environmentObjects: [],
  read: ({ build, config }) => {
    const value = config?.value ?? null
    const base = option(build, 'baseurl', 'b') ?? text(value, 'baseurl')
    return readingsWith(by, {
      publishDirectory: path(
        option(build, 'destination', 'd') ?? text(value, 'destination') ?? byDefault('_site', by),
      ),
      siteAddress: text(value, 'url'),
      basePath: base?.value ? base : byDefault('/', by),
    })
  },
  signs: { page: [/<meta name="generator" content="Jekyll/] },
  fixes: { setBase: (base) => `baseurl: "${base.replace(/\/$/, '')}"`, environmentFile: null },
}
