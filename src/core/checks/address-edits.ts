import { missingValue } from '../model/missing-value.ts'
import type { Edit } from '../model/report.ts'
import type { Evidence } from './check.ts'
import { isEnvironmentFile, variableEdit } from './variable-edit.ts'

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
 */
export function readdressed(urls: readonly string[], index: number, evidence: Evidence): Readdressed | null {
  return fromVariable(urls, index, evidence) ?? addressInPlace(urls, index, evidence)
}

const originOf = /^[a-z]+:\/\/[^/?#]*/i

/** The origin that each place writes gives way to another; before a path of the own origin, it is put. */
export function addressInPlace(
  urls: readonly string[],
  index: number,
  { sources }: Pick<Evidence, 'sources'>,
): Readdressed | null {
  const name = `API_ORIGIN${index === 0 ? '' : `_${index + 1}`}`
  const written = [...new Set(urls.map((url) => originOf.exec(url)?.[0] ?? url))].slice(0, mostUrls)
  const places = written.flatMap((url) => sources.findUrls(url).map((at) => ({ url, at })))
  if (places.length === 0) return null
  const edits = places.map(({ url, at }): Edit => {
    const path = originOf.test(url) ? '' : url
    return {
      file: at.file,
      line: at.line,
      column: at.column,
      instead: url,
      write: `${missingValue}${path}`,
      needs: name,
    }
  })
  return { name, isVariable: false, edits }
}

/**
 * Lets sources read the origin from a variable that the browser gets: a line of the environment file, which needs its value, and every
 * place that writes one of these addresses.
 */
function fromVariable(urls: readonly string[], index: number, evidence: Evidence): Readdressed | null {
  const { survey, sources } = evidence
  const file = survey.environmentTarget
  const objects = survey.definition?.environmentObjects ?? []
  const prefixes = (survey.prefixes?.value ?? []).filter((each) => /^[A-Z]/.test(each))
  // Frameworks above Vite that have a prefix of their own give such variables in another way; Vite's own they read alike.
  const isVite = objects.includes('import.meta.env') && prefixes.includes('VITE_')
  const object = isVite ? 'import.meta.env' : prefixes.length === 1 ? objects[0] : undefined
  const prefix = isVite ? 'VITE_' : prefixes[0]
  if (file === null || !isEnvironmentFile(file) || object === undefined || prefix === undefined) return null
  const name = `${prefix}API_ORIGIN${index === 0 ? '' : `_${index + 1}`}`
  if (survey.reads.some((read) => read.name === name)) return null
  const places = [...new Set(urls)]
    .slice(0, mostUrls)
    .flatMap((url) => sources.findUrls(url).map((at) => ({ url, at })))
  if (places.length === 0 || !places.every(({ at }) => code.test(at.file))) return null
  const edits = places.map(({ url, at }): Edit => {
    const path = url.replace(/^[a-z]+:\/\/[^/?#]*/i, '')
    return {
      file: at.file,
      line: at.line,
      column: at.column,
      instead: url,
      write: `\`\${${object}.${name}}${path}\``,
    }
  })
  return { name, isVariable: true, edits: [...edits, variableEdit(file, name)] }
}
