import { type Folded, member } from '../syntax/value.ts'
import { defineFramework } from './framework.ts'
import { path, pathOfUrl, text } from './readings.ts'

/**
 * Stencil's web applications. Checked against 4. The path of `baseUrl` is a directory within `dir`: what is published under
 * it is that directory.
 */
export const stencil = defineFramework({
  name: 'stencil',
  title: 'Stencil',
  over: ['vite', 'parcel'],
  markers: ['@stencil/core'],
  configFiles: ['stencil.config.ts', 'stencil.config.js'],
  commands: ['stencil build'],
  environmentFiles: () => [],
  environmentObjects: ['process.env', 'Env'],
  settings: {
    publishDirectory: { default: 'www' },
    basePath: { default: '/', url: true },
    siteAddress: {},
    prefixes: [],
    devProxy: [],
  },
  refine: ({ config }, { publishDirectory, basePath }) => {
    const target = webTarget(config?.value ?? null)
    const base = text(target, 'baseUrl')
    const below = base?.value ? pathOfUrl(base.value) : ''
    const directory = path(text(target, 'dir') ?? publishDirectory)
    return {
      publishDirectory: {
        ...directory,
        value: directory.value === null ? null : `${directory.value}${below}`.replace(/\/$/, ''),
      },
      ...(base && {
        basePath: { ...basePath, ...base, value: base.value === null ? null : below },
        siteAddress: base.value !== null && URL.canParse(base.value) ? base : null,
      }),
    }
  },
  signs: { files: [/(?:^|\/)p-[\da-zA-Z_]+\.entry\.js$/] },
  fixes: {
    setBase: (base, origin) => `baseUrl: '${origin}${base}',`,
    setSite: ({ origin, base }) => `baseUrl: '${origin}${base}',`,
    environmentFile: null,
  },
})

/** The first output that is a web application. */
function webTarget(config: Folded | null): Folded | null {
  const targets = member(config, 'outputTargets')
  if (targets?.kind !== 'list') return null
  return targets.items.find((each) => text(each, 'type')?.value === 'www') ?? null
}
