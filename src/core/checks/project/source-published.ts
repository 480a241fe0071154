import { kindsByWeight } from '../../model/reference.ts'
import { buildCommandOf, type Cause, type CausePlace, type Check, type Evidence } from '../check.ts'

/** The folder holds the sources of the site, not its build. */
export const sourcePublished: Check = {
  code: 'project/source-published',
  severity: 'blocker',
  title: 'These are the sources, not the build',
  keywords: ['source folder', 'main.tsx', 'blank page'],
  meaning:
    'The entry page starts a module in TypeScript, JSX or a component file. Browsers run none of them: only the ' +
    'development server turns them into scripts. The folder is the project itself, or its static files.',
  example: 'index.html holds <script type="module" src="/src/main.tsx">.',
  fixes: { any: 'Build the project, and publish what the build writes.' },
  after: ['project/needs-server'],
  run,
}

/** Sources that no browser runs. */
const source = /\.(?:[mc]?tsx?|jsx|vue|svelte|astro)(?:[?#]|$)/i

function run(evidence: Evidence): Cause[] {
  const { facts, requested, folder, survey } = evidence
  const places: CausePlace[] = facts.flatMap(({ path, kind, references }) =>
    kind === 'page'
      ? [...references]
          .filter((reference) => reference.kind === kindsByWeight[0] && source.test(reference.raw))
          .map(({ offset, length }) => ({ file: path, offset, length }))
      : [],
  )
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
      fix: { steps: [`Run ${buildCommandOf(evidence)}${where}.`] },
      claims,
    },
  ]
}
