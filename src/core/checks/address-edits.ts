import { isEnvironmentFile } from '../model/environment-file.ts'
import { missingValue } from '../model/missing-value.ts'
import type { Edit } from '../model/report.ts'
import type { SourceMatch } from '../project/sources/sources.ts'
import type { Evidence } from './check.ts'
import { variableEdit } from './variable-edit.ts'

/** The edits that put another address in place of one which sources write out. */
export interface Readdressed {
  /** What the address is called for whoever gives it. */
  readonly name: string
  /** Whether sources then read it from a variable of that name; else it is written where the old one stood. */
  readonly isVariable: boolean
  readonly edits: Edit[]
}

/** Addresses of one origin that are changed; more are a matter of a search. */
const mostUrls = 50

/** Sources in which an address may be an expression. */
const code = /\.(?:[cm]?[jt]sx?|vue|svelte|astro)$/

/**
 * Gives sources the origin of a service instead of one that they write out: from a variable that the browser gets, where the
 * framework has such, else in its place. Null where no source writes it.
 * @param urls addresses as sources write them: whole, or paths of the own origin
 * @param index tells several origins apart
 * @param isMeant which of the places are changed
 */
export function readdressed(
  urls: readonly string[],
  index: number,
  evidence: Evidence,
  isMeant: (at: SourceMatch) => boolean = () => true,
): Readdressed | null {
  return fromVariable(urls, index, evidence, isMeant) ?? addressInPlace(urls, index, evidence, isMeant)
}

const origin = /^[a-z]+:\/\/[^/?#]*/i

/** Files that only development has, by the steps and parts of their paths: what they write is meant for the developer's machine. */
const ofDevelopment =
  /(?:^|[./_-])(?:dev|development|local|mocks?|tests?|spec|e2e|fixtures?|stories|proxy)(?=[./_-]|$)/i

interface Written {
  readonly url: string
  readonly at: SourceMatch
}

/** Where sources of production write these addresses, whole; `shorter` is looked for where one is not written as it is requested. */
function writtenIn(
  { sources }: Pick<Evidence, 'sources'>,
  urls: readonly string[],
  shorter: (url: string) => string = (url) => url,
): Written[] {
  const of = (url: string): Written[] =>
    sources.findUrls(url).flatMap((at) => (ofDevelopment.test(at.file) ? [] : [{ url, at }]))
  const places = [...new Set(urls)].slice(0, mostUrls).flatMap((url) => {
    const whole = of(url)
    return whole.length > 0 ? whole : of(shorter(url))
  })
  return [...new Map(places.map((place) => [`${place.at.file} ${place.at.offset}`, place])).values()]
}

/** What the origin of a service is called for whoever gives it. */
export function apiOrigin(prefix: string, index: number): string {
  return `${prefix}API_ORIGIN${index === 0 ? '' : `_${index + 1}`}`
}

/** The origin that each place writes gives way to another; before a path of the own origin, it is put. */
export function addressInPlace(
  urls: readonly string[],
  index: number,
  evidence: Evidence,
  isMeant: (at: SourceMatch) => boolean = () => true,
): Readdressed | null {
  const name = apiOrigin('', index)
  const places = writtenIn(evidence, urls, (url) => origin.exec(url)?.[0] ?? url).filter(({ at }) =>
    isMeant(at),
  )
  if (places.length === 0) return null
  const edits = places.map(({ url, at: { file, line, column } }): Edit => {
    const instead = origin.exec(url)?.[0] ?? url
    const write = origin.test(url) ? missingValue : `${missingValue}${url}`
    return { file, line, column, instead, write, needs: name }
  })
  return { name, isVariable: false, edits }
}

/**
 * Lets sources read the origin from a variable that the browser gets: a line of the environment file, which needs its value, and every
 * place that writes one of these addresses.
 */
function fromVariable(
  urls: readonly string[],
  index: number,
  evidence: Evidence,
  isMeant: (at: SourceMatch) => boolean,
): Readdressed | null {
  const { survey } = evidence
  const file = survey.environmentTarget
  const objects = survey.definition?.environmentObjects ?? []
  const prefixes = (survey.prefixes?.value ?? []).filter((each) => /^[A-Z]/.test(each))
  // Frameworks above Vite that have a prefix of their own give such variables in another way; Vite's own they read alike.
  const isVite = objects.includes('import.meta.env') && prefixes.includes('VITE_')
  const object = isVite ? 'import.meta.env' : prefixes.length === 1 ? objects[0] : undefined
  const prefix = isVite ? 'VITE_' : prefixes[0]
  if (file === null || !isEnvironmentFile(file) || object === undefined || prefix === undefined) return null
  const name = apiOrigin(prefix, index)
  if (survey.reads.some((read) => read.name === name)) return null
  const places = writtenIn(evidence, urls).filter(({ at }) => isMeant(at))
  if (places.length === 0 || !places.every(({ at }) => code.test(at.file))) return null
  const edits = places.map(({ url, at: { file: source, line, column } }): Edit => {
    const path = url.replace(origin, '')
    const write = path === '' ? `${object}.${name}` : `\`\${${object}.${name}}${path}\``
    return { file: source, line, column, instead: url, write }
  })
  return { name, isVariable: true, edits: [...edits, variableEdit(file, name)] }
}
