import type { FileFacts } from '../model/facts.ts'
import { byDefault } from '../model/reading.ts'
import { everyFile, pageScripts } from '../project/routes/file-routes.ts'
import type { Framework } from './framework.ts'
import { readingsWith, text } from './readings.ts'

const by = "Gatsby's default"

/** Gatsby. Checked against 5. `pathPrefix` counts only when the command has --prefix-paths. */
export const gatsby: Framework = {
  name: 'gatsby',
  title: 'Gatsby',
  markers: ['gatsby'],
  configFiles: ['gatsby-config.js', 'gatsby-config.ts', 'gatsby-config.mjs'],
  shipsMaps: true,
  commands: ['gatsby build'],
  router: 'history',
  environmentExpansion: 'none',
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
      siteAddress: text(project.config?.value ?? null, 'siteMetadata', 'siteUrl'),
      prefixes: byDefault(['GATSBY_'], by),
      environmentFiles: ['.env.production'],
    })
  },
  needs: (files) => {
    const pages = files.filter(isGatsbyPage).map(({ path }) => path)
    const data = pages.map((from) => ({ from, path: `page-data/${nameOfPage(from)}/page-data.json` }))
    return pages.includes('index.html')
      ? [...data, { from: 'index.html', path: 'page-data/app-data.json' }]
      : data
  },
  pages: [{ directories: ['src/pages'], extensions: pageScripts, pageOf: everyFile() }],
  signs: { files: [/^page-data\//], page: [/id="___gatsby"/] },
  fixes: {
    setBase: (base) => `pathPrefix: '${base.replace(/\/$/, '')}',`,
    environmentFile: '.env.production',
  },
}

/** A page of its own making, not one that was copied as it is. */
function isGatsbyPage({ path, references }: FileFacts): boolean {
  return (
    /(?:^|\/)index\.html$/.test(path) && [...references].some(({ raw }) => raw.includes('webpack-runtime-'))
  )
}

/** Gatsby calls the front page "index" and the others by their directory. */
function nameOfPage(path: string): string {
  return path === 'index.html' ? 'index' : path.slice(0, -'/index.html'.length)
}
