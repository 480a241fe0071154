import { applied, changedLines, isPlaced, type PlacedEdit } from '../edits/edit.ts'
import type { Edit } from '../model/report.ts'
import { groupedBy } from '../model/text.ts'

/** The text of a file of the project; null where it is not there. */
type Read = (file: string) => Promise<string | null>

/** What takes the place of a text depends on what is around it: the whole line is shown, once, with all that changes on it. */
export async function withCorrectedLines(
  steps: readonly string[],
  edits: readonly Edit[],
  read: Read,
): Promise<string[]> {
  let shown = [...steps]
  const inLine = edits.filter(
    (edit): edit is PlacedEdit =>
      isPlaced(edit) &&
      edit.lines !== undefined &&
      (edit.instead !== undefined || edit.write.startsWith('&& ')),
  )
  for (const [line, own] of groupedBy(inLine, ({ file, line }) => `In ${file}, line ${line}, `)) {
    const [first] = own
    const after = own.length === 1 ? first?.lines?.after.trim() : await correctedLine(own, read)
    if (after === undefined || after.includes('\n') || after.length > longestLine) continue
    const isOf = (step: string): boolean =>
      step.startsWith(`${line}write  `) || step.startsWith(`${line}put the base path before `)
    const at = shown.findIndex(isOf)
    shown = shown.flatMap((step, index) => {
      if (!isOf(step)) return step
      return index === at ? `${line}write  ${after}` : []
    })
  }
  return shown
}

async function correctedLine(edits: readonly PlacedEdit[], read: Read): Promise<string | undefined> {
  const source = await read(edits[0]?.file ?? '')
  const after = source === null ? null : applied(source, edits)
  if (source === null || after === null) return undefined
  const { before, after: line } = changedLines(source, after)
  return before.includes('\n') ? undefined : line.trim()
}

/** Longer lines are no help in a sentence; UTF-16 units. */
const longestLine = 160
