import { normaliseBase } from '../../model/site.ts'
import { counted, span } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** Sources were changed after the build. */
export const sourceNewer = defineCheck({
  code: 'fresh/source-newer',
  severity: 'caution',
  title: 'Sources were changed after this build',
  keywords: ['stale', 'rebuild', 'old build'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { folder } = evidence
  const copied = ofCopies(evidence)
  if (copied) return [copied]
  const later = evidence.freshness?.later
  // Where the site is the project itself, what is built is among the sources.
  if (
    !later ||
    folder.path === '.' ||
    isOfVariable(later.source, evidence) ||
    isOfBase(later.source, evidence)
  )
    return []
  return [
    {
      key: 'sources',
      impact: `The site as it was before ${later.source} was changed.`,
      cause: `${later.source} was changed ${span(later.seconds)} after ${folder.name} was written${later.by ? `, ${later.by}` : ''}.`,
      source: { file: later.source, line: 1, column: 1 },
      fix: [rebuild(evidence)],
    },
  ]
}

/** What the build copied as it is, and is another in the sources now: nothing else than an older build explains that. */
function ofCopies({ freshness, folder, ...evidence }: Evidence): Cause | null {
  const [first, ...others] = freshness?.copies ?? []
  if (!first) return null
  const more =
    others.length > 0
      ? `, and so ${others.length > 1 ? 'do' : 'does'} ${counted(others.length, 'more file')}`
      : ''
  return {
    key: 'copies',
    impact: `The site as it was before ${first.source} was changed.`,
    cause: `The build copies ${first.source} as it is, and ${first.built} in ${folder.name} holds something else${more}: the build is older.`,
    places: (freshness?.copies ?? []).map(({ built, source }) => ({
      file: built,
      offset: null,
      length: 0,
      source: { file: source, line: 1, column: 1 },
    })),
    source: { file: first.source, line: 1, column: 1 },
    fix: [rebuild(evidence)],
  }
}

/** The configuration, whose base path is not the one of the build: that is reported as such. */
function isOfBase(file: string, { survey: { config, basePath }, requested }: Evidence): boolean {
  if (file !== config?.file || !basePath?.value?.startsWith('/')) return false
  const observed = requested.observed?.base
  return observed !== undefined && normaliseBase(basePath.value) !== observed
}

/** The file that sets a variable of which something is wrong in the build: that is reported as such. */
function isOfVariable(file: string, { environment }: Evidence): boolean {
  const reported = new Set<string>(['absent', 'outdated', 'from development', 'placeholder'])
  return environment.some(
    ({ state, definedIn }) => reported.has(state) && definedIn.some((place) => place.file === file),
  )
}
