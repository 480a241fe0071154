import { readFile } from 'node:fs/promises'
import type { Check } from '../core/checks/check.ts'
import { UsageError } from '../core/model/errors.ts'
import type { Report } from '../core/model/report.ts'
import { explanationsOf, htmlOf, type Viewer } from '../core/report/html.ts'
import { packageRoot } from '../node/package-root.ts'
import { version } from '../node/version.ts'

/** Pictures of a rehearsal that one page holds; beyond, the page would open slowly. Bytes. */
const mostPictures = 24_000_000

/** The report as one page that holds all it shows. @throws {UsageError} when the viewer was not built. */
export async function htmlReport(
  report: Report,
  checks: readonly Check[],
  now: Date = new Date(),
): Promise<string> {
  const made = `${now.toISOString().slice(0, 16).replace('T', ' ')} UTC`
  const explanations = explanationsOf(report, checks)
  const pictures = await picturesOf(report)
  return htmlOf({ report, explanations, pictures, version, made }, await viewer())
}

async function viewer(): Promise<Viewer> {
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
async function picturesOf({ rehearsal }: Report): Promise<Record<string, string>> {
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
