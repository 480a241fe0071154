import { defineFramework } from './framework.ts'
import { option, path, usualEnvironmentFiles } from './readings.ts'

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
  refine: ({ build, manifest }) => {
    const target = [...(manifest?.textsBelow('targets') ?? [])][0]?.[1]
    const directory = option(build, 'dist-dir') ?? target?.get('distDir')
    const base = option(build, 'public-url') ?? target?.get('publicUrl')
    return { ...(directory && { publishDirectory: path(directory) }), ...(base && { basePath: base }) }
  },
  fixes: { setBase: (base) => `--public-url ${base}`, environmentFile: '.env.production' },
})
