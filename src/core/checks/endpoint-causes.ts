import type { Endpoint } from '../endpoints/endpoint.ts'
import { absoluteOf, shownUrl } from '../endpoints/endpoints.ts'
import { isLoopback } from '../model/address.ts'
import { isEnvironmentFile } from '../model/environment-file.ts'
import { missingValue } from '../model/missing-value.ts'
import { own } from '../model/own.ts'
import type { Place } from '../model/reading.ts'
import type { Edit, EnvironmentState } from '../model/report.ts'
import { counted, groupedBy, listed, startOfLine } from '../model/text.ts'
import { type SourceMatch, Sources } from '../project/sources/sources.ts'
import { addressInPlace, apiOrigin, type Readdressed, readdressed } from './address-edits.ts'
import { type Cause, type CauseFix, type CausePlace, type Evidence, rebuild } from './check.ts'
import { setMissing } from './missing-variables.ts'
import { rewritten } from './own-files.ts'
import { variableEdit } from './variable-edit.ts'

/** What a check says of the endpoints of one origin. */
interface EndpointWords {
  /** Why a visitor goes without: "the page asks …". */
  readonly reason: (origin: string) => string
  /** What to write in place of the address: "the production address". */
  readonly instead: string
  /** Why the address is wrong, after its name: "which is …". */
  readonly why: string
}

/** One cause for each origin that visitors' browsers are sent to wrongly. Where that is not proven, a person must decide. */
export async function endpointCauses(
  endpoints: readonly Endpoint[],
  evidence: Evidence,
  reported: EndpointWords,
): Promise<Cause[]> {
  const byOrigin = new Map<string, Endpoint[]>()
  for (const endpoint of endpoints) {
    if (endpoint.certainty === 'harmless' || isOfDevelopment(endpoint, evidence)) continue
    const origin = originOf(endpoint.url)
    byOrigin.set(origin, [...(byOrigin.get(origin) ?? []), endpoint])
  }
  const causes = [...byOrigin].map(([origin, all], index) => causeOf(origin, all, index, evidence, reported))
  return Promise.all(causes)
}

async function causeOf(
  origin: string,
  all: readonly Endpoint[],
  index: number,
  evidence: Evidence,
  reported: EndpointWords,
): Promise<Cause> {
  const proven = all.some(({ certainty }) => certainty === 'called')
  const carried = all.find(({ variable }) => variable !== null)
  const source = (carried ?? all.find((each) => each.source))?.source ?? null
  const isLink = all.every(({ flow }) => flow === 'link')
  const ways = isLink ? [] : [...new Set(all.flatMap(({ flow }) => flow ?? []))]
  const at = source ? ` at ${source.file}:${source.line}` : ''
  const missing = carried ? [] : overridden(origin, source, evidence)
  const names = listed(missing.map(({ name }) => name))
  const by =
    ways.length > 0
      ? ` It is passed to ${listed(ways.map((way) => own(inWords, way) ?? way))}.`
      : ` It is ${all[0]?.judgement ?? 'in the build'}.`
  return {
    key: origin,
    severity: proven ? undefined : 'caution',
    impact: isLink
      ? `A link leads to ${origin}, where a visitor finds nothing.`
      : isApart(ways)
        ? `A link that somebody shares shows no picture: it stands at ${origin}.`
        : `${lossOf(ways)}: ${reported.reason(origin)}`,
    cause: carried
      ? `${carried.variable} ${isOfThisMachine(origin) ? `was ${origin}` : 'held an address'} when the build ran${source ? ` (${source.file}:${source.line} sets it)` : ''}, ${reported.why}.`
      : missing.length > 0
        ? `The build ran without ${names}, and takes ${origin} instead${at}, ${reported.why}.${by}`
        : `${source ? `The source names ${origin}${at}` : `The build names ${origin}`}, ${reported.why}.${by}`,
    places: all.flatMap(endpointPlaces),
    source,
    fix: await fixOf(all, carried, source, index, evidence, reported.instead),
  }
}

/** Flows that go by no name of the platform. */
const inWords: Readonly<Record<string, string>> = {
  client: 'a client',
  element: 'an element',
  form: 'a form',
  worker: 'a worker',
  import: 'an import',
  configuration: 'the configuration',
  navigation: 'the address of the window',
  link: 'a link',
  beacon: 'a beacon',
  hint: 'what others fetch because of the page, such as the picture of a shared link',
}

const ofFiles: ReadonlySet<string> = new Set(['element', 'import', 'worker'])

/** No page asks for it: those who show a link to the page do. */
function isApart(ways: readonly (string | null)[]): boolean {
  return ways.length > 0 && ways.every((way) => way === 'hint')
}

function lossOf(ways: readonly string[]): string {
  const isFile = ways.length > 0 && ways.every((way) => ofFiles.has(way))
  return isFile ? 'A file that the page loads does not arrive' : 'Data does not load'
}

/** The development value of a variable, which is a finding of its own. */
function isOfDevelopment({ places }: Endpoint, { facts }: Evidence): boolean {
  return places.some(({ file, offset }) =>
    facts.some(
      ({ path, occurrences }) =>
        path === file && occurrences.some((each) => each.state === 'development' && each.offset === offset),
    ),
  )
}

export function endpointPlaces({ url, places }: Endpoint): CausePlace[] {
  return places.map(({ file, offset, length }) => ({ file, offset, length, request: shownUrl(url) }))
}

/** The one address that is shown though a variable held it: nothing of it is anybody's secret. */
function isOfThisMachine(origin: string): boolean {
  return URL.canParse(origin) && isLoopback(new URL(origin).hostname)
}

/** The origin of an address as a person would write it; the authority of one that is none yet. */
export function originOf(url: string): string {
  const absolute = absoluteOf(url)
  return URL.canParse(absolute)
    ? new URL(absolute).origin
    : (/^[a-z]+:\/\/[^/?#]*/i.exec(absolute)?.[0] ?? url)
}

/** A variable that carries the address gets another value; sources that write it out read it from one. */
async function fixOf(
  all: readonly Endpoint[],
  carried: Endpoint | undefined,
  source: Place | null,
  index: number,
  evidence: Evidence,
  instead: string,
): Promise<CauseFix> {
  const first = step(carried?.variable ?? null, source, instead)
  const urls = all.map(({ url }) => url)
  if (carried?.variable) {
    const known = source !== null && isEnvironmentFile(source.file)
    return {
      steps: [first, rebuild(evidence)],
      edits: known
        ? [variableEdit(source.file, carried.variable)]
        : // Another place that writes the same is a default, which the variable overrides.
          (addressInPlace(urls, index, evidence)?.edits.filter(({ file }) => file === source?.file) ?? []),
    }
  }
  const missing = overridden(originOf(urls[0] ?? ''), source, evidence)
  if (missing.length > 0) {
    const beside = readdressed(urls, index, evidence, (at) => !standsIn(at, evidence))
    return bothOf(setMissing(missing, evidence), beside, evidence, instead)
  }
  const written = readdressed(urls, index, evidence) ?? (await inConfiguration(urls, index, evidence))
  const own = written ? null : await inOwnFiles(all, index, evidence)
  if (own) return own
  if (!written && evidence.survey.definition === null && evidence.survey.build === null)
    return {
      steps: [`In ${all[0]?.places[0]?.file ?? 'the folder'}, or in what it is built from, use ${instead}.`],
    }
  if (!written) {
    const apart = isApart(all.map(({ flow }) => flow))
    const own = apart && evidence.survey.definition?.fixes.pictureOrigin?.(evidence.site.origin)
    return { steps: [own || first, rebuild(evidence)] }
  }
  return { steps: [...stepsOf(written, evidence, instead), rebuild(evidence)], edits: written.edits }
}

/** What a person does where sources write an address out. */
function stepsOf({ name, isVariable, edits }: Readdressed, evidence: Evidence, instead: string): string[] {
  const where = linesOf(edits.filter(({ file }) => file !== evidence.survey.environmentTarget))
  return isVariable
    ? [`In ${where}, use ${instead}, from a variable of the environment.`, setVariable(name, evidence)]
    : [`In ${where}, use ${instead}.`]
}

/** An address that stands in for a variable, and that is written out beside it too. */
function bothOf(set: CauseFix, beside: Readdressed | null, evidence: Evidence, instead: string): CauseFix {
  if (beside === null) return set
  return {
    ...set,
    steps: [...stepsOf(beside, evidence, instead), ...set.steps],
    edits: [...beside.edits, ...(set.edits ?? [])],
  }
}

/** Whether a place is the address that stands in for a variable: the next of its text behind the read. */
function standsIn({ file, offset }: SourceMatch, { survey, sources }: Evidence): boolean {
  const text = sources.texts.get(file) ?? ''
  return survey.reads.some(({ standIn, place }) => {
    if (standIn === undefined || place.file !== file) return false
    const read = startOfLine(text, place.line) + place.column - 1
    return text.indexOf(standIn, read) === offset
  })
}

/** Files that are named one by one. */
const mostFiles = 8

/** The lines of edits, for people: every place is to be changed. */
function linesOf(edits: readonly Edit[]): string {
  const byFile = [...groupedBy(edits, ({ file }) => file)]
  const named = byFile.slice(0, mostFiles).map(([file, there]) => {
    const lines = [...new Set(there.flatMap(({ line }) => (line === null ? [] : [line])))].sort(
      (a, b) => a - b,
    )
    return `${file}, ${lines.length > 1 ? 'lines' : 'line'} ${listed(lines.map(String))}`
  })
  const more = byFile.length - named.length
  return listed(more > 0 ? [...named, counted(more, 'more file')] : named)
}

/**
 * The variables that were not set, so that an address stands in for them: at the place that it comes from, or in the configuration
 * where no source writes it.
 */
function overridden(
  origin: string,
  source: Place | null,
  { survey, environment }: Evidence,
): EnvironmentState[] {
  const file = source?.file ?? survey.config?.file
  const names = new Set(
    survey.reads
      .filter(
        ({ standIn, place }) => standIn !== undefined && place.file === file && originOf(standIn) === origin,
      )
      .map(({ name }) => name),
  )
  // What stands in its place may be taken for its value.
  return environment.filter(
    ({ name, state, definedIn, inProcess }) =>
      names.has(name) && (state !== 'injected' || (definedIn.length === 0 && !inProcess)),
  )
}

/** An address that the configuration gives the build is written there, and in no source. */
async function inConfiguration(
  urls: readonly string[],
  index: number,
  evidence: Evidence,
): Promise<Readdressed | null> {
  const file = evidence.survey.config?.file
  const text = file === undefined ? null : await evidence.projectText(file)
  if (file === undefined || text === null) return null
  const found = addressInPlace(urls, index, { ...evidence, sources: new Sources(new Map([[file, text]])) })
  // What the development server forwards to is right there.
  const lines = text.split('\n')
  const edits = found?.edits.filter(
    ({ line, column }) => !forwarded.test(lines[(line ?? 1) - 1]?.slice(0, (column ?? 1) - 1) ?? ''),
  )
  return found && edits && edits.length > 0 ? { ...found, edits } : null
}

const forwarded = /(?:\btarget|["']\/[^"']*["'])\s*:\s*["'`]$/

/** Another origin in the files of a folder that nothing builds; a person must say which. */
function inOwnFiles(all: readonly Endpoint[], index: number, evidence: Evidence): Promise<CauseFix | null> {
  const name = apiOrigin('', index)
  return rewritten(
    all.flatMap(endpointPlaces),
    (url) => (absolute.test(url) ? url.replace(absolute, missingValue) : null),
    evidence,
    name,
  )
}

const absolute = /^[a-z]+:\/\/[^/?#]*/i

/** The step that gives a new variable its value. */
function setVariable(name: string, { survey }: Evidence): string {
  return `Give ${name} the address of the service in ${survey.environmentTarget}, or where the build runs.`
}

function step(
  variable: string | null,
  source: Evidence['environment'][number]['definedIn'][number] | null,
  instead: string,
  from = ', from a variable of the environment',
): string {
  if (variable && source) return `In ${source.file}, line ${source.line}, give ${variable} ${instead}.`
  if (variable) return `Give ${variable} ${instead} where the build runs.`
  return source
    ? `In ${source.file}, line ${source.line}, use ${instead}${from}.`
    : `Find what sets this address in the sources, and use ${instead} there.`
}
