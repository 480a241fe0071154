import type { Framework } from '../frameworks/framework.ts'
import { buildScript } from '../frameworks/readings.ts'
import type { Folder } from '../model/folder.ts'
import type { Place } from '../model/reading.ts'
import { counted, escapePattern, readText } from '../model/text.ts'
import { listedRoutes } from './routes/route-list.ts'
import { readRoutes, routeFile, routeWords } from './routes/routes.ts'
import { configuredReads } from './sources/configured-reads.ts'
import { type EnvironmentReads, readEnvironmentReads, wordsOf } from './sources/environment-reads.ts'
import { type PassedRead, passedReads } from './sources/passed-reads.ts'
import { passedWhole } from './sources/passed-whole.ts'
import { readRouter, routerWords } from './sources/router.ts'
import { readRouterBase } from './sources/router-base.ts'
import { schemaReads } from './sources/schema-reads.ts'
import { type Around, readSources, type Sources } from './sources/sources.ts'
import { type Described, emptySurvey, type Survey, type SurveyWithSources } from './survey.ts'

/**
 * Adds what the sources say: the variables they read, and the marks these leave in built code. Without a build to check
 * (`alone`) only the texts that say something are kept.
 */
export async function withSources(
  folder: Folder,
  { survey, values }: Described,
  { alone, packages = [], shared }: { readonly alone: boolean } & Pick<Around, 'packages' | 'shared'>,
): Promise<SurveyWithSources> {
  if (!survey.definition) return { ...emptySurvey(folder.label), survey }
  const { definition } = survey
  const output = survey.publishDirectory?.value ?? null
  const around = { output, config: survey.config?.file ?? null, packages, shared }
  const config = await scriptOfConfig(folder, around.config ?? (survey.build && buildScript(survey.build)))
  const passed = config ? passedReads(config.file, config.text) : []
  const { sources, computed, ...own } = alone
    ? await readTelling(folder, around, survey, { definition, passed })
    : readWith(await readSources(folder, around), { definition, passed })
  const other = configuredReads(sources, survey, own.reads.length)
  const first = own.reads.length + other.reads.length
  const named = schemaReads(sources, computed, survey.prefixes?.value ?? [], first)
  const reads = [...own.reads, ...other.reads, ...named.reads]
  const traces = [...own.traces, ...other.traces, ...named.traces]
  const router = survey.router ?? readRouter(sources, definition)
  const isHistory = !definition.routerFollowsBase && (router?.value ?? 'history') === 'history'
  const routerBase = survey.routerBase ?? (isHistory ? readRouterBase(sources) : null)
  const listed = await listedRoutes(folder, definition, output)
  // A framework's own router behind a hash asks the host for nothing, whatever files its pages are made of.
  const isHidden = survey.router !== null && survey.router.value !== 'history'
  const known = isHidden ? [] : readRoutes(sources, definition, router?.value ?? null)
  const routes = [
    ...known,
    ...listed.filter(({ pattern }) => !known.some((each) => each.pattern === pattern)),
  ]
  const remarks = [...survey.remarks, ...computedRemark(computed), ...leftRemark(sources)]
  return {
    survey: {
      ...survey,
      reads,
      computedReads: computed,
      passedWhole: alone ? null : passedWhole(sources, config),
      router,
      routerBase,
      routes,
      remarks,
    },
    sources,
    traces,
    values,
  }
}

function leftRemark({ left, files }: Sources): string[] {
  if (left === 0) return []
  return [
    `The project has more sources than are read: ${counted(files.length, 'file')} were looked at, ${counted(left, 'more file')} not. What these read or request is not known.`,
  ]
}

function computedRemark([first, ...more]: readonly Place[]): string[] {
  if (!first) return []
  const others = more.length > 0 ? `, and ${counted(more.length, 'more place')}` : ''
  return [
    `Variables are read by a name that only the running code knows, or passed on all at once: ${first.file}:${first.line}${others}. Which ones it needs is not known.`,
  ]
}

type SourcesRead = EnvironmentReads & { readonly sources: Sources }

/** How variables are read: by the framework's rules, and those that the configuration passes on. */
interface Reading {
  readonly definition: Framework
  readonly passed: readonly PassedRead[]
}

function readWith(sources: Sources, { definition, passed }: Reading): SourcesRead {
  return { sources, ...readEnvironmentReads(sources, definition, passed) }
}

/** The configuration file, where it is a script. */
async function scriptOfConfig(
  folder: Folder,
  file: string | null,
): Promise<{ readonly file: string; readonly text: string } | null> {
  const text = file !== null && /\.[cm]?[jt]s$/.test(file) ? await readText(folder, file) : null
  return file === null || text === null ? null : { file, text }
}

/** The sources that a survey learns something from. */
async function readTelling(
  folder: Folder,
  around: Around,
  { configured }: Survey,
  reading: Reading,
): Promise<SourcesRead> {
  const { definition, passed } = reading
  const members = configured.map((each) => each.members.join('.'))
  const replaced = passed.flatMap((each) => each.replaced ?? [])
  const words = [...wordsOf(definition), ...members, ...replaced].map(escapePattern)
  const any = new RegExp([...words, routerWords.source, routeWords.source].join('|'))
  const tells = (path: string, text: string): boolean =>
    any.test(text) || routeFile.test(path) || path.endsWith('.html')
  const first = readWith(await readSources(folder, around, tells), reading)
  if (first.carried.length === 0) return first
  // Which constants carry a variable is known only now, and other files may test them.
  const uses = (text: string): boolean => first.carried.some((name) => text.includes(name))
  return readWith(await readSources(folder, around, (path, text) => tells(path, text) || uses(text)), reading)
}
