import { byDefault } from '../../model/reading.ts'
import type { Framework } from './framework.ts'
import { readingsWith, text } from './readings.ts'

const by = "Gatsby's default"

/** Gatsby. Checked against 5. `pathPrefix` counts only when the command has --prefix-paths. */
export const gatsby: Framework = {
  name: 'gatsby',
  title: 'Gatsby',
  markers: ['gatsby'],
  configFiles: ['gatsby-config.js', 'gatsby-config.ts', 'gatsby-config.mjs'],
  commands: ['gatsby build'],
  router: 'history',
  environmentFiles: (mode) => [`.env.${mode}`],
  configArgument: () => ({}),
  environmentObjects: ['process.env'],
  read: (project) => {
    const prefix = text(project.config?.value ?? null, 'pathPrefix')
    const used =
      project.build.options.has('prefix-paths') || project.build.environment.get('PREFIX_PATHS') === 'true'
    return readingsWith(by, {
      publishDirectory: byDefault('public', by),
      basePath: used && prefix ? prefix : byDefault('/', prefix ? 'gatsby build without --prefix-paths' : by),
      prefixes: byDefault(['GATSBY_'], by),
      environmentFiles: ['.env.production'],
    })
  },
  signs: { files: [/^page-data\//], page: [/id="___gatsby"/] },
  remedies: {
    setBase: (base) => `pathPrefix: '${base.replace(/\/$/, '')}',`,
    environmentFile: '.env.production',
  },
}
