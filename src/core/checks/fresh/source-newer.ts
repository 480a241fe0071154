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
  const later = evidence.freshness?.later
  if (!later || isOfVariable(later.source, evidence)) return []
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

/** The file that sets a variable of which something is wrong in the build: that is reported as such. */
function isOfVariable(file: string, { environment }: Evidence): boolean {
  const reported = new Set<string>(['absent', 'outdated', 'from development', 'placeholder'])
  return environment.some(
    ({ state, definedIn }) => reported.has(state) && definedIn.some((place) => place.file === file),
  )
}

function span(seconds: number): string {
  if (seconds < 120) return `${Math.round(seconds)} seconds`
  return seconds < 7_200 ? `${Math.round(seconds / 60)} minutes` : `${Math.round(seconds / 3_600)} hours`
}
