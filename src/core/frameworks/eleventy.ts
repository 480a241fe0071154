import { byDefault } from '../model/reading.ts'
import { member } from '../syntax/value.ts'
import type { Framework } from './framework.ts'
import { option, path, readingsWith, text } from './readings.ts'

const by = "Eleventy's default"

/** Eleventy. Checked against 3. `pathPrefix` reaches the pages only through its HTML base plugin. */
export const eleventy: Framework = {
  name: 'eleventy',
  title: 'Eleventy',
  markers: ['@11ty/eleventy'],
  configFiles: ['.eleventy.js', 'eleventy.config.js', 'eleventy.config.mjs', 'eleventy.config.cjs'],
  commands: ['eleventy'],
  environmentFiles: () => [],
  configArgument: () => ({}),
  environmentObjects: ['process.env'],
  read: ({ build, config }) => {
    const value = config?.value ?? null
    // Settings may be a second export beside the configuration function.
    const exported = member(value, 'config')
    return readingsWith(by, {
      publishDirectory: path(
        option(build, 'output') ??
          text(value, 'dir', 'output') ??
          text(exported, 'dir', 'output') ??
          byDefault('_site', by),
      ),
      basePath:
        option(build, 'pathprefix') ??
        text(value, 'pathPrefix') ??
        text(exported, 'pathPrefix') ??
        byDefault('/', by),
    })
  },
  signs: { page: [/<meta name=["']?generator["']? content=["']?Eleventy/i] },
  fixes: { setBase: (base) => `pathPrefix: '${base}',`, environmentFile: null },
}
