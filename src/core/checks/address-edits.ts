import type { Edit } from '../model/report.ts'
import type { Evidence } from './check.ts'
import { isEnvironmentFile, variableEdit } from './variable-edit.ts'

/** The edits that put a variable in place of an address which sources write out, and the variable. */
export interface FromVariable {
  readonly name: string
  readonly edits: Edit[]
}

/** Addresses of one origin that are changed; more are a matter of a search. */
const mostUrls = 50

/** Sources in which an address may be an expression. */
const code = /\.(?:[cm]?[jt]sx?|vue|svelte|astro)$/

/**
 * Lets sources read the origin of a service from a variable that the browser gets: a line of the environment file, which needs its value, and
 * every place that writes one of these addresses. Null where the framework has no such variables, or no source writes them.
 * @param urls addresses as sources write them: whole, or paths of the own origin
 * @param index tells several origins apart
 */
export function fromVariable(
  urls: readonly string[],
  index: number,
  evidence: Evidence,
): FromVariable | null {
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
    .flatMap((url) => sources.findAll(url).map((at) => ({ url, at })))
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
  return { name, edits: [...edits, variableEdit(file, name)] }
}
