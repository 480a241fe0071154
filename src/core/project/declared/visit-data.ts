import type { Folder } from '../../model/folder.ts'
import { readText } from '../../model/text.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import type { Folded } from '../../syntax/value.ts'
import { foldData } from '../config/data-files.ts'

/** Data nested deeper than this declares nothing. */
const deepest = 40

/** Where a value stands in a data file. */
export interface DataPosition {
  /** The keys that lead to it, the nearest last. */
  readonly keys: readonly string[]
  /** Whether it is an item of a list; then the nearest key is the list's. */
  readonly isItem: boolean
}

/** Visits a value and all in it, outermost first. What lies below a value for which `visit` answers false is left out. */
export function visitData(
  value: Folded,
  visit: (value: Folded, position: DataPosition) => unknown,
  position: DataPosition = { keys: [], isItem: false },
): void {
  if (visit(value, position) === false || position.keys.length > deepest) return
  const { keys } = position
  if (value.kind === 'list') for (const item of value.items) visitData(item, visit, { keys, isItem: true })
  if (value.kind !== 'object') return
  for (const [key, item] of value.members) visitData(item, visit, { keys: [...keys, key], isItem: false })
}

/** Reads a data file. One that can't be read declares nothing to us; its own tool will complain. */
export async function readData(folder: Folder, file: string): Promise<Folded | null> {
  const text = await readText(folder, file)
  try {
    return text === null ? null : await foldData(file, text)
  } catch (error) {
    if (error instanceof SyntaxProblem) return null
    throw error
  }
}
