import { isEnvironmentFile } from '../model/environment-file.ts'
import type { Edit } from '../model/report.ts'

/** An edit that a program can make: what stands at a place of a file, and what is to stand there. */
export type PlacedEdit = Edit & {
  readonly range: { readonly start: number; readonly end: number }
  readonly expects: string
  readonly text: string
}

/** A change of one text: from an offset to another, in UTF-16 units. */
export interface Change {
  readonly start: number
  readonly end: number
  readonly text: string
}

export function isPlaced(edit: Edit): edit is PlacedEdit {
  return edit.range !== undefined && edit.text !== undefined && edit.expects !== undefined
}

/** The edit with the change it comes to in the file's text, and the lines that it touches. */
export function placed(edit: Edit, source: string, { start, end, text }: Change): PlacedEdit {
  const from = source.lastIndexOf('\n', start - 1) + 1
  const newline = source.indexOf('\n', end)
  const to = newline < 0 ? source.length : newline
  const before = source.slice(from, to)
  const after = source.slice(from, start) + text + source.slice(end, to)
  return {
    ...edit,
    range: { start, end },
    expects: source.slice(start, end),
    text,
    // Lines of environment files hold values.
    ...(!holdsValues(edit) &&
      edit.moveTo === undefined &&
      before.length + after.length <= longestShown && { lines: changedLines(before, after) }),
  }
}

/** Whether nobody is shown what stands around an edit: its file holds values, or gets one. */
export function holdsValues({ file, needs }: Edit): boolean {
  return needs !== undefined || isEnvironmentFile(file)
}

/** The lines that differ, without those that both have at the beginning or the end. */
export function changedLines(before: string, after: string): { before: string; after: string } {
  const [gone, come] = [before.split('\n'), after.split('\n')]
  while (gone.length > 0 && come.length > 0 && gone[0] === come[0]) {
    gone.shift()
    come.shift()
  }
  while (gone.length > 0 && come.length > 0 && gone.at(-1) === come.at(-1)) {
    gone.pop()
    come.pop()
  }
  return { before: gone.join('\n'), after: come.join('\n') }
}

/** Longer lines show nobody what has changed in them; UTF-16 units. */
const longestShown = 800

/**
 * The text of a file after some edits; null where it does not hold what one of them expects, or two of them overlap.
 * @param source null for a file that is not there, which an edit of nothing makes
 */
export function applied(source: string | null, edits: readonly PlacedEdit[]): string | null {
  if (source === null && edits.some(({ whole }) => whole === undefined)) return null
  let text = source ?? ''
  let last = Number.POSITIVE_INFINITY
  for (const { range, expects, text: next } of [...edits].sort((a, b) => b.range.start - a.range.start)) {
    if (range.end > last || text.slice(range.start, range.end) !== expects) return null
    text = text.slice(0, range.start) + next + text.slice(range.end)
    last = range.start
  }
  return text
}
