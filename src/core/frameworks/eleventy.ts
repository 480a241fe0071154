import { defineFramework } from './framework.ts'

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
  signs: { page: [/<meta name=["']?generator["']? content=["']?Eleventy/i] },
  fixes: { setBase: (base) => `pathPrefix: '${base}',`, environmentFile: null },
})
