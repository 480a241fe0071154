import { defineFramework } from './framework.ts'

const endings = ['toml', 'yaml', 'yml', 'json']
const base = { options: ['baseURL', 'b'], config: ['baseURL', 'baseurl'] }

/** Hugo. Checked against 0.111. Its base is an absolute URL. */
export const hugo = defineFramework({
  name: 'hugo',
  title: 'Hugo',
  over: ['vite', 'parcel'],
  markers: ['hugo-bin', 'hugo-extended'],
  configFiles: ['hugo', 'config'].flatMap((name) => endings.map((ending) => `${name}.${ending}`)),
  configOptions: ['config'],
  isOwn: (config) => /^[ \t]*["']?baseURL["']?[ \t]*[:=]/im.test(config),
  needsNoManifest: true,
  templateReads:
    /\{\{-?(?:(?!\}\}).){0,200}?\b(?:os\.Getenv|getenv)\s+["`](\w+)["`](?:(?!\}\}).){0,200}\}\}/g,
  commands: ['hugo'],
  settings: {
    publishDirectory: { options: ['destination', 'd'], config: ['publishDir'], default: 'public' },
    basePath: { ...base, url: true, default: '/' },
    siteAddress: base,
  },
  signs: { page: [/<meta name=["']?generator["']? content=["']?Hugo/i] },
  fixes: {
    keeps: /\.(?:html?|mdx?)$/,
    setBase: (base, origin) => `baseURL = "${origin}${base}"`,
    setSite: ({ origin, base }) => `baseURL = "${origin}${base}"`,
    environmentFile: null,
  },
})
