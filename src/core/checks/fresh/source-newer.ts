import { type Cause, type Evidence, type Judge, rebuild } from '../check.ts'

/** Sources were changed after the build. */
export const sourceNewer: Judge = {
  code: 'fresh/source-newer',
  severity: 'caution',
  title: 'Sources were changed after this build',
  meaning:
    'A source file is newer than the entry page of the build, so the folder does not hold the change. Times are trusted only ' +
    'where they differ among the sources: a fresh checkout gives all of them one time. Then the last commits are asked, when ' +
    'there is a repository, and where those know nothing, nothing is said. A build that is kept in the repository is as old ' +
    'as its last commit.',
  example: 'src/pages/Sailings.tsx was saved at 15:20; dist/index.html was written at 14:55.',
  remedies: { any: 'Build again.' },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { folder } = evidence
  const later = evidence.freshness?.later
  if (!later || isOfVariable(later.source, evidence)) return []
  return [
    {
      key: 'sources',
      meets: `The site as it was before ${later.source} was changed.`,
      cause: `${later.source} was changed ${span(later.seconds)} after ${folder.name} was written${later.by ? `, ${later.by}` : ''}.`,
      showings: [],
      source: { file: later.source, line: 1, column: 1 },
      remedy: { steps: [rebuild(evidence)], change: null },
    },
  ]
}

/** The file that sets a variable of which something is wrong in the build: that is told as such. */
function isOfVariable(file: string, { environment }: Evidence): boolean {
  const told = new Set<string>(['absent', 'outdated', 'from development', 'placeholder'])
  return environment.some(
    ({ state, definedIn }) => told.has(state) && definedIn.some((place) => place.file === file),
  )
}

function span(seconds: number): string {
  if (seconds < 120) return `${Math.round(seconds)} seconds`
  return seconds < 7_200 ? `${Math.round(seconds / 60)} minutes` : `${Math.round(seconds / 3_600)} hours`
}
