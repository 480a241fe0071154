import { readFile } from 'node:fs/promises'
import { UsageError } from '../core/model/errors.ts'
import type { Report } from '../core/model/report.ts'
import type { Viewer } from '../core/report/formats/html.ts'
import { packageRoot } from '../node/package-root.ts'

/** Pictures of a rehearsal that one page holds; beyond, the page would open slowly. Bytes. */
const mostPictures = 24_000_000

/** The pages that show a report. @throws {UsageError} when they were not built. */
export async function viewer(): Promise<Viewer> {
  const read = (name: string): Promise<string> =>
    readFile(new URL(`dist/viewer/${name}`, packageRoot), 'utf8')
  try {
    return { script: await read('viewer.js'), style: await read('viewer.css') }
  } catch {
    throw new UsageError(
      'The pages of the HTML report are not there. Install the package again, or run npm run build.',
    )
  }
}

/** The pictures that a rehearsal kept, as data URLs; one that is gone is left out. */
export async function picturesOf({ rehearsal }: Report): Promise<Record<string, string>> {
  const found: Record<string, string> = {}
  let bytes = 0
  for (const { picture } of rehearsal?.visits ?? []) {
    const image = picture === null ? null : await readFile(picture).catch(() => null)
    if (picture === null || image === null || bytes + image.length > mostPictures) continue
    bytes += image.length
    found[picture] = `data:image/png;base64,${image.toString('base64')}`
  }
  return found
}
