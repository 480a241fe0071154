import { defineFramework } from './framework.ts'
import { path, text } from './readings.ts'

/**
 * Eleventy. Checked against 3. `pathPrefix` reaches the pages only through its HTML base plugin. Settings may be a second
 * export, `config`, beside the configuration function.
 */
export const eleventy = defineFramework({
  name: 'eleventy',
  title: 'Eleventy',
  over: ['vite', 'parcel'],
  markers: ['@11ty/eleventy'],
  configFiles: ['.eleventy.js', 'eleventy.config.js', 'eleventy.config.mjs', 'eleventy.config.cjs'],
  commands: ['eleventy'],
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { options: ['output'], config: ['dir.output', 'config.dir.output'], default: '_site' },
    basePath: { options: ['pathprefix'], config: ['pathPrefix', 'config.pathPrefix'], default: '/' },
  },
  refine: async ({ config, fold }, { publishDirectory, basePath }) => {
    const beside = config && (await fold(config.file, 'config'))
    const [output, prefix] = [text(beside, 'dir', 'output'), text(beside, 'pathPrefix')]
    return {
      ...(output && publishDirectory.certainty === 'default' && { publishDirectory: path(output) }),
      ...(prefix && basePath.certainty === 'default' && { basePath: prefix }),
    }
  },
  signs: { page: [/<meta name=["']?generator["']? content=["']?Eleventy/i] },
  fixes: { setBase: (base) => `pathPrefix: '${base}',`, environmentFile: null },
})
