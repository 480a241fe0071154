import { byDefault } from '../model/reading.ts'
import { defineFramework } from './framework.ts'

/** What stands beside its configuration. */
const itsOwn = [
  'Gemfile',
  '_layouts',
  '_includes',
  '_posts',
  '_sass',
  'index.md',
  'index.markdown',
  'index.html',
]

/** Jekyll. Checked against 4. An empty base is the root. */
export const jekyll = defineFramework({
  name: 'jekyll',
  title: 'Jekyll',
  over: ['vite', 'parcel'],
  markers: [],
  configFiles: ['_config.yml', '_config.yaml', '_config.toml'],
  needsNoManifest: true,
  // Other generators have a `_config.yml` too, and they come from a manifest.
  isOwn: (_, names) => !names.has('package.json') || itsOwn.some((name) => names.has(name)),
  commands: ['jekyll build'],
  settings: {
    publishDirectory: { options: ['destination', 'd'], config: ['destination'], default: '_site' },
    basePath: { options: ['baseurl', 'b'], config: ['baseurl'], default: '/' },
    siteAddress: { config: ['url'] },
  },
  refine: (_, { basePath }) =>
    basePath.value === '' ? { basePath: byDefault('/', "Jekyll's default") } : {},
  signs: { page: [/<meta name="generator" content="Jekyll/] },
  fixes: {
    keeps: /\.(?:html?|mdx?)$/,
    setBase: (base) => `baseurl: "${base.replace(/\/$/, '')}"`,
    setSite: ({ origin }) => `url: "${origin}"`,
    environmentFile: null,
  },
})
