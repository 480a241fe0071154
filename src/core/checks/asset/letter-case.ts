import { nameOf } from '../../model/folder.ts'
import type { Edit } from '../../model/report.ts'
import { safeDecode } from '../../model/text.ts'
import type { SourceMatch } from '../../project/sources/sources.ts'
import type { Request } from '../../requests/request.ts'
import { type Cause, type CauseFix, defineCheck, type Evidence, placesOf, rebuild } from '../check.ts'
import { effectOf, severityOf } from '../missing-files.ts'
import { rewritten, stepsOf } from '../own-files.ts'

/** A file that is there under a name that only looks the same. */
export const letterCase = defineCheck({
  code: 'asset/letter-case',
  severity: 'blocker',
  title: 'A file name differs in letter case',
  keywords: ['case-sensitive', 'upper case', 'lower case', 'letter case'],
  after: ['base/wrong-path', 'base/relative-at-depth'],
  run: async (evidence) => {
    const causes: Cause[] = []
    for (const request of evidence.failing) {
      const file = nearFile(request, evidence)
      if (file !== null) causes.push(await causeOf(request, file, evidence))
    }
    return causes
  },
})

function nearFile({ pathname }: Request, { site, requested }: Evidence): string | null {
  if (!pathname.startsWith(site.base)) return null
  return requested.index.nearlyNamed(safeDecode(pathname.slice(site.base.length)))
}

async function causeOf(request: Request, file: string, evidence: Evidence): Promise<Cause> {
  const requested = safeDecode(request.pathname.slice(evidence.site.base.length))
  const forms = requested.toLowerCase() !== file.toLowerCase()
  const severity = severityOf([request])
  const name = requested.slice(requested.lastIndexOf('/') + 1)
  const fix = await respelt(request, requested, file, evidence)
  const [edit] = fix.edits ?? []
  const written =
    edit && edit.line !== null ? { file: edit.file, line: edit.line, column: edit.column ?? 1 } : null
  return {
    key: file,
    severity,
    title: forms ? 'A file name differs in the form of its letters' : undefined,
    impact: effectOf([request]),
    cause: forms
      ? `${requested} is requested; the file of that name in ${evidence.folder.name} is written in another Unicode form (composed or decomposed letters).`
      : `${requested} is requested; the file in ${evidence.folder.name} is called ${file}.`,
    places: placesOf([request]),
    source: written ?? evidence.sources.find(name),
    fix,
    claims: [request],
  }
}

/** The name of the file as it is, wherever the sources write it otherwise; in a folder that nothing builds, there. */
async function respelt(
  request: Request,
  requested: string,
  file: string,
  evidence: Evidence,
): Promise<CauseFix> {
  const written = [...new Set(request.places.map(({ reference }) => reference.raw))]
  const found = [...written, `/${requested}`, requested, nameOf(requested)]
    .map((url) => ({ url, at: evidence.sources.findUrls(url).filter((each) => beginsThere(each, evidence)) }))
    .find(({ at }) => at.length > 0)
  const own = found
    ? null
    : await rewritten(placesOf([request]), (url) => inItsLetters(url, requested, file), evidence)
  const edits = found ? editsOf(found, requested, file) : (own?.edits ?? [])
  return {
    steps: [
      ...(edits.length > 0 ? stepsOf(edits) : [`Write ${file} where the sources write ${requested}.`]),
      ...(own ? [] : [rebuild(evidence)]),
      'Or rename the file.',
    ],
    edits,
  }
}

/**
 * Whether a path begins where it was found, or behind an expression: what stands behind a slash is the end of another path, as of an import whose
 * file has these letters.
 */
function beginsThere({ file, offset }: SourceMatch, { sources }: Evidence): boolean {
  const before = sources.texts.get(file)?.slice(0, offset) ?? ''
  return !before.endsWith('/') || before.endsWith('}/')
}

function editsOf(
  { url, at }: { readonly url: string; readonly at: readonly SourceMatch[] },
  requested: string,
  file: string,
): Edit[] {
  const write = inItsLetters(url, requested, file)
  return write === null
    ? []
    : at.map(({ file: source, line, column }) => ({ file: source, line, column, instead: url, write }))
}

/** A URL that ends as the requested path does, with the letters of the file. */
function inItsLetters(url: string, requested: string, file: string): string | null {
  let same = 0
  while (same < url.length && url.at(-1 - same) === requested.at(-1 - same)) same++
  const isWhole = requested.length === file.length && same > 0
  const write = url.slice(0, url.length - same) + file.slice(file.length - same)
  return isWhole && write !== url ? write : null
}
