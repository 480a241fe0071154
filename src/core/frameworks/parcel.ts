import { defineFramework } from './framework.ts'
import { middlewareIn, option, path, proxyPaths, usualEnvironmentFiles } from './readings.ts'

/** Parcel. Checked against 2.16. It inlines any variable the code reads, whatever its name. */
export const parcel = defineFramework({
  name: 'parcel',
  title: 'Parcel',
  markers: ['parcel'],
  configFiles: ['.parcelrc'],
  shipsMaps: true,
  commands: ['parcel build'],
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { options: ['dist-dir'], default: 'dist' },
    basePath: { options: ['public-url'], default: '/' },
    prefixes: [''],
  },
  // Targets have names of the project's own.
  refine: async ({ build, manifest, fold, text }) => {
    const target = [...(manifest?.textsBelow('targets') ?? [])][0]?.[1]
    const directory = option(build, 'dist-dir') ?? target?.get('distDir')
    const base = option(build, 'public-url') ?? target?.get('publicUrl')
    const proxy =
      proxyPaths(await fold('.proxyrc.json')) ??
      proxyPaths(await fold('.proxyrc')) ??
      (await middlewareIn(text, ['.proxyrc.js', '.proxyrc.cjs', '.proxyrc.mjs', '.proxyrc.ts']))
    return {
      ...(directory && { publishDirectory: path(directory) }),
      ...(base && { basePath: base }),
      ...(proxy && { devProxy: proxy }),
    }
  },
  fixes: {
    setBase: (base) => `--public-url ${base}`,
    baseIn: 'command',
    environmentFile: '.env.production',
    noMaps: 'give the build command the option --no-source-maps',
  },
})
