import { forEachOf, referenceAt } from '../../model/reference-list.ts'
import { buildCommandOf, type Cause, type CausePlace, defineCheck, type Evidence } from '../check.ts'

/** The folder holds the sources of the site, not its build. */
export const sourcePublished = defineCheck({
  code: 'project/source-published',
  severity: 'blocker',
  title: 'These are the sources, not the build',
  keywords: ['source folder', 'main.tsx', 'blank page'],
  after: ['project/needs-server'],
  run,
})

/** Sources that no browser runs. */
const source = /\.(?:[mc]?tsx?|jsx|vue|svelte|astro)(?:[?#]|$)/i

function run(evidence: Evidence): Cause[] {
  const { facts, requested, folder, survey } = evidence
  const places: CausePlace[] = []
  for (const { path, kind, references } of facts) {
    if (kind !== 'page') continue
    forEachOf(references, 'script', (raw, at) => {
      if (!source.test(raw)) return
      const { offset, length } = referenceAt(references, at)
      places.push({ file: path, offset, length })
    })
  }
  if (places.length === 0) return []
  const claims = requested.requests.filter((request) =>
    request.places.some(({ file, reference }) =>
      places.some((each) => each.file === file && each.offset === reference.offset),
    ),
  )
  const said = survey.publishDirectory?.value
  const where = said && said !== folder.path ? ` and publish ${said}` : ' and publish what it writes'
  return [
    {
      key: folder.path,
      impact: 'An empty page: the browser refuses the script that should start it.',
      cause: `The page in ${folder.name} starts a source file, which only the development server can turn into a script.`,
      places,
      fix: [`Run ${buildCommandOf(evidence)}${where}.`],
      claims,
    },
  ]
}
