import { safeDecode } from '../../model/text.ts'
import type { Request } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence, placesOf, rebuild } from '../check.ts'
import { effectOf, severityOf } from '../missing-files.ts'

/** A file that is there under a name that only looks the same. */
export const letterCase = defineCheck({
  code: 'asset/letter-case',
  severity: 'blocker',
  title: 'A file name differs in letter case',
  keywords: ['case-sensitive', 'upper case', 'lower case', 'letter case'],
  after: ['base/wrong-path', 'base/relative-at-depth'],
  run: (evidence) =>
    evidence.failing.flatMap((request) => {
      const file = nearFile(request, evidence)
      return file === null ? [] : [causeOf(request, file, evidence)]
    }),
})

function nearFile({ pathname }: Request, { site, requested }: Evidence): string | null {
  if (!pathname.startsWith(site.base)) return null
  return requested.index.nearlyNamed(safeDecode(pathname.slice(site.base.length)))
}

function causeOf(request: Request, file: string, evidence: Evidence): Cause {
  const requested = safeDecode(request.pathname.slice(evidence.site.base.length))
  const forms = requested.toLowerCase() !== file.toLowerCase()
  const severity = severityOf([request])
  const name = requested.slice(requested.lastIndexOf('/') + 1)
  const source = evidence.sources.find(name)
  const where = source ? `In ${source.file}, line ${source.line}, write` : 'Write'
  return {
    key: file,
    severity,
    title: forms ? 'A file name differs in the form of its letters' : undefined,
    impact: effectOf([request]),
    cause: forms
      ? `${requested} is requested; the file of that name in ${evidence.folder.name} is written in another Unicode form (composed or decomposed letters).`
      : `${requested} is requested; the file in ${evidence.folder.name} is called ${file}.`,
    places: placesOf([request]),
    source,
    fix: [`${where} ${file}, or rename the file.`, rebuild(evidence)],
    claims: [request],
  }
}
