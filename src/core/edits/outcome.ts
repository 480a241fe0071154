import { missingValue } from '../model/missing-value.ts'
import type { Finding } from '../model/report.ts'
import { isPlaced, type PlacedEdit } from './edit.ts'

/** What became of a fix that was tried: nothing of the finding is left, something is, or something new came with it. */
export type FixState = 'proved' | 'not enough' | 'worse' | 'not tried' | 'not built'

/** A finding with what fixes it: edits, and variables that the build gets. */
export interface Fixable {
  readonly finding: Finding
  readonly edits: readonly PlacedEdit[]
  readonly variables: Values
}

/** Values that a person gives for variables, by name. */
export type Values = ReadonlyMap<string, string>

/** The findings whose edits all have their places, and whose values are given where they need some, each once. */
export function fixable(findings: readonly Finding[], values: Values = new Map()): Fixable[] {
  return findings.flatMap((finding) => {
    const { edits, variables = [] } = finding.fix
    const known = edits.filter(isPlaced).flatMap((edit) => withValue(edit, values) ?? [])
    const given = variables.flatMap((name): [string, string][] => {
      const value = values.get(name)
      return value === undefined ? [] : [[name, value]]
    })
    // An entry in a form that nobody knows is for a person; the build gets the value all the same.
    const needed = edits.filter((edit) => isPlaced(edit) || !edit.beside)
    const isWhole = known.length === needed.length && given.length === variables.length
    return isWhole && known.length + given.length > 0 && !finding.waived
      ? [{ finding, edits: known, variables: new Map(given) }]
      : []
  })
}

/** The variables that a build gets with some fixes. */
export function variablesOf(fixes: readonly Fixable[]): Record<string, string> {
  return Object.fromEntries(fixes.flatMap(({ variables }) => [...variables]))
}

/** The variables whose values a person must give before a fix can be tried. */
export function neededBy({ fix: { edits, variables = [] } }: Finding): string[] {
  return [...new Set([...edits.flatMap(({ needs }) => needs ?? []), ...variables])]
}

/** A value that is the same in every language. */
const isPlain = /^[\w./:@%+,=?&-]*$/

/** The edit with the value that it needs; null where nobody gives it. */
function withValue(edit: PlacedEdit, values: Values): PlacedEdit | null {
  const { needs, text } = edit
  if (needs === undefined) return edit
  const value = values.get(needs)
  if (value === undefined) return null
  // Between the quotes of whatever language.
  if (text.includes(missingValue))
    return isPlain.test(value) ? { ...edit, text: text.replace(missingValue, () => value) } : null
  const written = isPlain.test(value) ? value : `'${value.replaceAll("'", '')}'`
  const whole = edit.whole && { whole: `${needs}=${written}\n` }
  return { ...edit, ...whole, text: text.replace(/=(?=\n|$)/, () => `=${written}`) }
}

/** The edits of several fixes by file, the same one once; files that are only moved are not among them. */
export function editsByFile(fixes: readonly Fixable[]): Map<string, PlacedEdit[]> {
  const found = new Map<string, PlacedEdit[]>()
  for (const edit of fixes.flatMap(({ edits }) => edits)) {
    if (edit.moveTo !== undefined) continue
    const known = found.get(edit.file) ?? []
    const isKnown = known.some(
      ({ range, text }) =>
        range.start === edit.range.start && range.end === edit.range.end && text === edit.text,
    )
    if (!isKnown) found.set(edit.file, [...known, edit])
  }
  return found
}

/** A file that is moved as it is. */
export interface Move {
  readonly from: string
  readonly to: string
}

/** The files that some fixes move, each once. */
export function movesOf(fixes: readonly Fixable[]): Move[] {
  const found = fixes
    .flatMap(({ edits }) => edits)
    .flatMap(({ file, moveTo }): [string, string][] => (moveTo === undefined ? [] : [[file, moveTo]]))
  return [...new Map(found)].map(([from, to]) => ({ from, to }))
}

/** What a check after some fixes shows of each, compared with the check before. */
export function outcomesOf(
  fixes: readonly Fixable[],
  before: readonly Finding[],
  after: readonly Finding[],
): { readonly states: ReadonlyMap<string, FixState>; readonly fresh: readonly Finding[] } {
  const known = new Set(before.map(({ fingerprint }) => fingerprint))
  const left = new Set(after.map(({ fingerprint }) => fingerprint))
  const fresh = after.filter(({ fingerprint, severity }) => !known.has(fingerprint) && severity !== 'note')
  const states = new Map(
    fixes.map(({ finding: { fingerprint } }): [string, FixState] => [
      fingerprint,
      left.has(fingerprint) ? 'not enough' : fresh.length > 0 ? 'worse' : 'proved',
    ]),
  )
  return { states, fresh }
}
