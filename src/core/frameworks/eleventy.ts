import type { Reading } from '../model/reading.ts'
import { defineFramework } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
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
  dataFiles: /(?:^|\/)_data\/|\.11tydata\.[cm]?js$/,
  settings: {
    publishDirectory: { options: ['output'], config: ['dir.output', 'config.dir.output'], default: '_site' },
    basePath: { options: ['pathprefix'], config: ['pathPrefix', 'config.pathPrefix'], default: '/' },
  },
  refine: async (project, { publishDirectory, basePath }) => {
    const beside = project.config && (await project.fold(project.config.file, 'config'))
    const [output, prefix] = [text(beside, 'dir', 'output'), text(beside, 'pathPrefix')]
    return {
      ...(output && publishDirectory.certainty === 'default' && { publishDirectory: path(output) }),
      basePath: await inForce(project, prefix && basePath.certainty === 'default' ? prefix : basePath),
    }
  },
  signs: { page: [/<meta name=["']?generator["']? content=["']?Eleventy/i] },
  fixes: { setBase: (base) => `pathPrefix: '${base}',`, rebasesLinks: true, environmentFile: null },
})

/** The prefix as it reaches the pages: without the plugin, only those URLs have it that pass through the filter `url`. */
async function inForce(
  project: ProjectSources,
  basePath: Reading<string | null>,
): Promise<Reading<string | null>> {
  const { config, manifest } = project
  if (!config || basePath.certainty === 'default') return basePath
  const written = (await project.text(config.file)) ?? ''
  if (/addPlugin\([^)]*HtmlBasePlugin/.test(written)) return basePath
  const isOlder = /^\D*[12]\b/.test(manifest?.dependency('@11ty/eleventy')?.value ?? '')
  const plugin = isOlder ? 'EleventyHtmlBasePlugin' : 'HtmlBasePlugin'
  const load = /\bmodule\.exports\b/.test(written)
    ? `const { ${plugin} } = require('@11ty/eleventy')`
    : `import { ${plugin} } from '@11ty/eleventy'`
  const inactive = {
    because: `${config.file} adds no ${plugin}, and without it only URLs that pass through the filter "url" get the prefix`,
    step: `In ${config.file}, write  ${load}  and call addPlugin(${plugin}) on the configuration.`,
  }
  return { ...basePath, inactive }
}
