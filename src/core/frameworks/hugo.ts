import { byDefault } from '../model/reading.ts'
import type { Framework } from './framework.ts'
import { mapped, option, path, pathOfUrl, readingsWith, text } from './readings.ts'

const by = "Hugo's default"
const endings = ['toml', 'yaml', 'yml', 'json']

/** Hugo. Checked against 0.111. Its base is an absolute URL. */
export const hugo: Framework = {
  name: 'hugo',
  title: 'Hugo',
  markers: ['hugo-bin', 'hugo-extended'],
  configFiles: ['hugo', 'config'].flatMap((name) => endings.map((ending) => `${name}.${ending}`)),
  isOwn: (config) => /^\s*["']?baseURL["']?\s*[:=]/im.test(config),
  needsNoManifest: true,
  commands: ['hugo'],
  environmentFiles: () => [],
  configArgument: () => ({}),
  environmentObjects: [],
  read: ({ build, config }) => {
    const value = config?.value ?? null
    const base =
      option(build, 'baseURL', 'b') ?? text(value, 'baseURL') ?? text(value, 'baseurl') ?? byDefault('/', by)
    return readingsWith(by, {
      publishDirectory: path(
        option(build, 'destination', 'd') ?? text(value, 'publishDir') ?? byDefault('public', by),
      ),
      basePath: mapped(base, pathOfUrl),
      siteAddress: base,
    })
  },
  signs: { page: [/<meta name=["']?generator["']? content=["']?Hugo/i] },
  fixes: { setBase: (base) => `baseURL = "https://…${base}"`, environmentFile: null },
}
