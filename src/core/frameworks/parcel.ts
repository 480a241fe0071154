import { byDefault } from '../model/reading.ts'
import type { Framework } from './framework.ts'
import { option, path, readingsWith, usualEnvironmentFiles } from './readings.ts'

const by = "Parcel's default"

/** Parcel. Checked against 2.16. It inlines any variable the code reads, whatever its name. */
export const parcel: Framework = {
  name: 'parcel',
  title: 'Parcel',
  markers: ['parcel'],
  configFiles: ['.parcelrc'],
  shipsMaps: true,
  commands: ['parcel build'],
  environmentFiles: usualEnvironmentFiles,
  configArgument: () => ({}),
  environmentObjects: ['process.env'],
  read: ({ build, manifest }) => {
    const target = [...(manifest?.textsBelow('targets') ?? [])][0]
    return readingsWith(by, {
      publishDirectory: path(
        option(build, 'dist-dir') ?? target?.[1].get('distDir') ?? byDefault('dist', by),
      ),
      basePath: option(build, 'public-url') ?? target?.[1].get('publicUrl') ?? byDefault('/', by),
      prefixes: byDefault([''], by),
      environmentFiles: usualEnvironmentFiles('production'),
    })
  },
  signs: {},
  fixes: { setBase: (base) => `--public-url ${base}`, environmentFile: '.env.production' },
}
