import { digestsOf, matches, strongest } from '../../model/digest.ts'
import type { RequestPlace } from '../../requests/request.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A file is not the one that its digest was made of. */
export const integrity = defineCheck({
  code: 'asset/integrity',
  severity: 'blocker',
  title: 'A file does not match its digest',
  keywords: ['integrity', 'hash', 'subresource integrity', 'sha384', 'wasm'],
  run,
})

async function run(evidence: Evidence): Promise<Cause[]> {
  const byFile = new Map<string, RequestPlace[]>()
  const doubtful = await listsOfAnotherKind(evidence)
  for (const { place, file } of evidence.requested.digests) {
    if (doubtful.has(place.file)) continue
    byFile.set(file, [...(byFile.get(file) ?? []), place])
  }
  const causes: Cause[] = []
  for (const [file, places] of byFile) {
    const cause = await checkFile(file, places, evidence)
    if (cause) causes.push(cause)
  }
  return causes
}

/**
 * Lists whose 32 digits are no MD5 of the files, whatever they are: those of which fewer than half match. One that mostly
 * matches is a list of MD5, and what does not match in it was changed.
 */
async function listsOfAnotherKind({ requested, readFile }: Evidence): Promise<Set<string>> {
  const counts = new Map<string, { right: number; all: number }>()
  for (const { place, file } of requested.digests) {
    const { integrity: digest = '' } = place.reference
    if (!digest.startsWith('md5:')) continue
    const bytes = await readFile(file)
    const count = counts.get(place.file) ?? { right: 0, all: 0 }
    counts.set(place.file, count)
    count.all++
    if (bytes && (await matches(bytes, digest))) count.right++
  }
  return new Set([...counts].filter(([, { right, all }]) => right * 2 < all).map(([file]) => file))
}

async function checkFile(
  file: string,
  places: readonly RequestPlace[],
  evidence: Evidence,
): Promise<Cause | null> {
  const bytes = await evidence.readFile(file)
  if (bytes === null) return null
  const wrong: RequestPlace[] = []
  for (const place of places) {
    if (!(await matches(bytes, place.reference.integrity ?? ''))) wrong.push(place)
  }
  const first = wrong[0]
  if (!first) return null
  const by = await explained(bytes, first.reference.integrity ?? '')
  return {
    key: file,
    impact: `The browser refuses ${file}: its content is not what was promised.`,
    cause: `${first.file} gives a ${nameOf(first.reference.integrity)} digest for ${file} that the file does not have.${by ? ` With ${by} line endings it would match: they were converted after the build.` : ''}`,
    places: wrong.map((place) => showingOf(place, evidence)),
    fix: by
      ? [
          'Keep line endings as the build wrote them: mark the folder as binary in .gitattributes, and upload without conversion.',
          rebuild(evidence),
        ]
      : ['Ship the files as the build wrote them: nothing may change them afterwards.', rebuild(evidence)],
  }
}

function showingOf(
  { file, reference: { offset, length, raw }, from }: RequestPlace,
  { site }: Evidence,
): CausePlace {
  const url = URL.canParse(raw, from) ? new URL(raw, from) : null
  return {
    file,
    offset,
    length,
    ...(url ? { request: url.href } : { request: site.address + raw }),
    status: 200,
  }
}

/** Which line endings the digest was made with, when that is all that differs. */
async function explained(bytes: Uint8Array, digest: string): Promise<string | null> {
  const text = new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes)
  const encode = (changed: string): Uint8Array => new TextEncoder().encode(changed)
  if (text.includes('\r\n') && (await matches(encode(text.replaceAll('\r\n', '\n')), digest))) return 'Unix'
  const windows = text.replaceAll('\r\n', '\n').replaceAll('\n', '\r\n')
  return (await matches(encode(windows), digest)) ? 'Windows' : null
}

function nameOf(digest = ''): string {
  const [first] = strongest(digestsOf(digest))
  return first?.algorithm.replace('-', '') ?? ''
}
