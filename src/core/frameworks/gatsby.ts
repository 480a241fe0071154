import type { FileFacts } from '../model/facts.ts'
import { defineFramework } from './framework.ts'
import { everyFile, pageScripts } from './page-files.ts'

/** Gatsby. Checked against 5. `pathPrefix` counts only when the command has --prefix-paths. */
export const gatsby = defineFramework({
  name: 'gatsby',
  title: 'Gatsby',
  over: ['vite', 'parcel'],
  markers: ['gatsby'],
  configFiles: ['gatsby-config.js', 'gatsby-config.ts', 'gatsby-config.mjs'],
  shipsMaps: true,
  commands: ['gatsby build'],
  router: 'history',
  environmentExpansion: 'none',
  environmentFiles: (mode) => [`.env.${mode}`],
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { default: 'public' },
    basePath: { config: ['pathPrefix'], default: '/' },
    siteAddress: { config: ['siteMetadata.siteUrl'] },
    prefixes: ['GATSBY_'],
  },
  refine: ({ build }, { basePath }) => {
    const used = build.options.has('prefix-paths') || build.environment.get('PREFIX_PATHS') === 'true'
    if (used || basePath.certainty === 'default') return {}
    const at = build.at ? `In ${build.at.file}, line ${build.at.line}, add` : 'Add'
    const inactive = {
      because: `${build.command.value} runs gatsby build without --prefix-paths`,
      step: `${at} --prefix-paths to gatsby build.`,
      option: '--prefix-paths',
    }
    return { basePath: { ...basePath, inactive } }
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
    publicUrl: { write: (path) => `withPrefix('/${path}')`, from: "import { withPrefix } from 'gatsby'" },
    setBase: (base) => `pathPrefix: '${base.replace(/\/$/, '')}',`,
    setSite: ({ origin }) => `siteMetadata: { siteUrl: '${origin}' },`,
    environmentFile: '.env.production',
  },
})

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
