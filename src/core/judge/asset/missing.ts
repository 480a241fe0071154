import type { Request } from '../../ask/ask.ts'
import { safeDecode } from '../../ask/folder-index.ts'
import { withoutHash } from '../../model/fingerprint.ts'
import { directoryOf, extensionOf, nameOf } from '../../model/folder.ts'
import { kindsByWeight, type ReferenceKind } from '../../model/reference.ts'
import { counted } from '../../model/text.ts'
import type { SourceMatch } from '../../survey/sources/sources.ts'
import { buildCommandOf, type Cause, type Evidence, type Judge, showingsOf } from '../judge.ts'

/** A file that the build asks for is not in the folder. */
export const missing: Judge = {
  code: 'asset/missing',
  severity: 'blocker',
  title: 'A file the page needs is not in the folder',
  meaning:
    'A page, style sheet or script asks for a file that was not built, was removed after the build, or was never copied. ' +
    'The host answers 404, or sends its fallback page in place of the file.',
  example:
    'dist/index.html asks for /assets/index-4f7d20aa.js; the folder has index-b81e63c2.js from a later build.',
  remedies: {
    any: 'Build again into an empty folder and ship all of it. Files that are not built must lie in the static directory.',
    vite: 'Build again and ship all of dist. Files used by plain path belong in public/; others are imported, so that Vite emits them.',
  },
  after: ['base/wrong-path', 'base/relative-at-depth'],
  judge,
}

/** What a visitor meets when a file of a kind does not arrive. */
const effects: Readonly<Partial<Record<ReferenceKind, string>>> = {
  script: 'The page does not start: a script it needs does not arrive.',
  import: 'The page does not start: a script it needs does not arrive.',
  'lazy-import': 'A part of the site does not open: its script does not arrive when a visitor goes there.',
  style: 'The page is bare: a style sheet does not arrive.',
  preload: 'A part of the site does not open: a file it waits for does not arrive.',
  frame: 'An embedded page stays empty.',
  media: 'A film or sound does not play.',
  image: 'A picture does not show.',
  font: 'A font does not arrive: the text shows in another.',
  icon: "The site's icon does not show.",
  manifest: 'The site cannot be installed: its manifest does not arrive.',
}

const slight = new Set<ReferenceKind>(['icon', 'manifest'])

function judge(evidence: Evidence): Cause[] {
  const groups = new Map<string, Request[]>()
  for (const request of evidence.failing) {
    const key = groupOf(request, evidence)
    groups.set(key, [...(groups.get(key) ?? []), request])
  }
  return [...groups].map(([key, requests]) => causeOf(key, requests, evidence))
}

/** Files of a directory that is missing as a whole have one cause; others stand alone. */
function groupOf({ pathname }: Request, { site, asked }: Evidence): string {
  const path = pathIn(pathname, site.base)
  const directory = directoryOf(path)
  return directory === '' || asked.index.isDirectory(directory) ? path : `${directory}/`
}

function pathIn(pathname: string, base: string): string {
  return safeDecode(pathname.startsWith(base) ? pathname.slice(base.length) : pathname)
}

function causeOf(key: string, requests: readonly Request[], evidence: Evidence): Cause {
  const kinds = new Set(requests.flatMap(({ places }) => places.map(({ reference }) => reference.kind)))
  const worst = kindsByWeight.find((kind) => kinds.has(kind))
  const first = requests[0]?.answer
  const whole = key.endsWith('/')
  const what = whole ? `${counted(requests.length, 'file')} below ${key}` : key
  const instead = first?.status === 200 ? ` The host sends ${first.file} instead, with status 200.` : ''
  const name = whole ? nameOf(pathIn(requests[0]?.pathname ?? '', evidence.site.base)) : nameOf(key)
  const source = originOf(name, evidence)
  return {
    key: withoutHash(key),
    ...([...kinds].every((kind) => slight.has(kind)) ? { severity: 'caution' as const } : {}),
    title: whole ? `A directory the pages need is not in the folder` : missing.title,
    meets: (worst && effects[worst]) ?? 'A file the page asks for does not arrive.',
    cause: `${what} ${whole && requests.length > 1 ? 'are' : 'is'} asked for, and ${evidence.folder.path} does not hold ${whole && requests.length > 1 ? 'them' : 'it'}.${instead}`,
    showings: showingsOf(requests),
    source,
    remedy: { steps: stepsFor(name, source, evidence), change: null },
    claims: requests,
  }
}

function stepsFor(name: string, source: SourceMatch | null, evidence: Evidence): string[] {
  const { survey, folder } = evidence
  if (!survey.project) return [`Put ${name} into ${folder.path}, or take away what asks for it.`]
  const built = withoutHash(name) !== name
  const where = source ? ` (${source.file}, line ${source.line}, uses it)` : ''
  if (built) {
    return [
      `Run ${buildCommandOf(evidence)} again and ship the whole folder${where}.`,
      'If the file goes missing again, look at what runs after the build: something deletes it or leaves it out.',
    ]
  }
  return [
    `Put ${name} where the build copies it from, or correct its path${where}.`,
    `Then run ${buildCommandOf(evidence)}.`,
  ]
}

/** Where the sources use the file: by its name without the hash, or as a module of that name. */
function originOf(name: string, { sources }: Evidence): SourceMatch | null {
  const plain = withoutHash(name).replace(/[.-]\*/, '')
  const stem = plain.slice(0, plain.lastIndexOf('.'))
  const candidates = [plain]
  if (extensionOf(name) === 'js' || extensionOf(name) === 'css') {
    for (const ending of ['.tsx', '.ts', '.jsx', '.js', '.vue', '.svelte', "'", '"'])
      candidates.push(`/${stem}${ending}`)
  }
  for (const candidate of candidates) {
    const found = candidate.length > 3 ? sources.find(candidate) : null
    if (found) return found
  }
  return null
}
