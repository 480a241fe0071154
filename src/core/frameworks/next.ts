import { byDefault, type Reading } from '../model/reading.ts'
import { everyFile, namedPages, pageScripts } from '../project/routes/file-routes.ts'
import { member } from '../syntax/value.ts'
import type { Framework, OutputKind, ProjectSources } from './framework.ts'
import { path, readingsWith, text } from './readings.ts'

const by = "Next's default"

/** Next, static export and server. Checked against 16. */
export const next: Framework = {
  name: 'next',
  title: 'Next',
  markers: ['next'],
  configFiles: ['next.config.js', 'next.config.mjs', 'next.config.ts', 'next.config.mts'],
  commands: ['next build'],
  router: 'history',
  environmentExpansion: 'next',
  environmentFiles: (mode) => ['.env', `.env.${mode}`, '.env.local', `.env.${mode}.local`],
  configArgument: () => ({}),
  environmentObjects: ['process.env'],
  read: (project) => {
    const config = project.config?.value ?? null
    const exported = text(config, 'output')
    const distDir = text(config, 'distDir')
    const isExport = exported?.value === 'export'
    const folder = distDir ?? byDefault(isExport ? 'out' : '.next', by)
    return readingsWith(by, {
      publishDirectory: path(folder),
      basePath: text(config, 'basePath') ?? byDefault('/', by),
      prefixes: byDefault(['NEXT_PUBLIC_'], by),
      environmentFiles: next.environmentFiles('production'),
      devProxy: rewrites(project),
      output: outputOf(exported),
    })
  },
  pages: [
    { directories: ['app', 'src/app'], extensions: pageScripts, pageOf: namedPages('page') },
    { directories: ['pages', 'src/pages'], extensions: pageScripts, pageOf: everyFile(/^(?:_|api\/)/) },
  ],
  signs: { files: [/^_next\/static\//] },
  fixes: {
    setBase: (base) => (base === '/' ? "basePath: ''," : `basePath: '${base.replace(/\/$/, '')}',`),
    environmentFile: '.env.production',
    makeStatic: "Write output: 'export' in the Next configuration; next build then writes out/.",
  },
}

function outputOf(exported: ReturnType<typeof text>): Reading<OutputKind | null> {
  if (!exported) return byDefault('server', by)
  return {
    ...exported,
    value: exported.value === null ? null : exported.value === 'export' ? 'static' : 'server',
  }
}

/** Rewrites are done by Next's own server; an exported folder has none. */
function rewrites({ config }: ProjectSources): Reading<string[] | null> {
  const value = member(config?.value ?? null, 'rewrites')
  const list = value?.kind === 'function' ? value.call([]) : value
  if (list?.kind !== 'list') return byDefault([], by)
  const sources = list.items.flatMap((item) => text(item, 'source')?.value ?? [])
  return { value: sources, from: list.at, certainty: 'stated' }
}
