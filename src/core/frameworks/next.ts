import { byDefault, type Reading } from '../model/reading.ts'
import { member } from '../syntax/value.ts'
import { defineFramework } from './framework.ts'
import { everyFile, namedPages, pageScripts } from './page-files.ts'
import type { ProjectSources } from './project-sources.ts'
import { mapped, text } from './readings.ts'

const by = "Next's default"

/** Next, static export and server. Checked against 16. In it, `.env.local` beats `.env.production`. */
export const next = defineFramework({
  name: 'next',
  title: 'Next',
  over: ['vite', 'parcel'],
  markers: ['next'],
  configFiles: ['next.config.js', 'next.config.mjs', 'next.config.ts', 'next.config.mts'],
  commands: ['next build'],
  router: 'history',
  environmentExpansion: 'next',
  environmentFiles: (mode) => ['.env', `.env.${mode}`, '.env.local', `.env.${mode}.local`],
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { config: ['distDir'], default: '.next' },
    basePath: { config: ['basePath'], default: '/' },
    prefixes: ['NEXT_PUBLIC_'],
    output: 'server',
  },
  refine: (project, { publishDirectory }) => {
    const exported = text(project.config?.value ?? null, 'output')
    const isExport = exported?.value === 'export'
    return {
      devProxy: rewrites(project),
      ...(exported && { output: mapped(exported, () => (isExport ? 'static' : 'server')) }),
      ...(isExport && publishDirectory.certainty === 'default'
        ? { publishDirectory: byDefault('out', by) }
        : {}),
    }
  },
  pages: [
    { directories: ['app', 'src/app'], extensions: pageScripts, pageOf: namedPages('page') },
    { directories: ['pages', 'src/pages'], extensions: pageScripts, pageOf: everyFile(/^(?:_|api\/)/) },
  ],
  signs: { files: [/^_next\/static\//] },
  fixes: {
    setBase: (base) => (base === '/' ? "basePath: ''," : `basePath: '${base.replace(/\/$/, '')}',`),
    pictureOrigin: (origin) => `In the metadata of app/layout, add  metadataBase: new URL('${origin}'),`,
    environmentFile: '.env.production',
    makeStatic: "Write output: 'export' in the Next configuration; next build then writes out/.",
    staticBy: { settings: () => ["output: 'export'"] },
  },
})

/** Rewrites are done by Next's own server; an exported folder has none. */
function rewrites({ config }: ProjectSources): Reading<string[] | null> {
  const value = member(config?.value ?? null, 'rewrites')
  const list = value?.kind === 'function' ? value.call([]) : value
  if (list?.kind !== 'list') return byDefault([], by)
  const sources = list.items.flatMap((item) => text(item, 'source')?.value ?? [])
  return { value: sources, from: list.at, certainty: 'stated' }
}
