import { listed } from '../../model/text.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** A read of the environment that the build left in. */
export const unreplaced = defineCheck({
  code: 'env/unreplaced',
  severity: 'blocker',
  title: 'A variable was never replaced',
  keywords: ['process is not defined', 'import.meta.env', 'process.env'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const found = variablesIn('unreplaced', 'unreplaced', evidence)
  const known = new Set(found.map(({ variable }) => variable.name))
  return [
    ...causeOf(found, (names, are) => wordsOf(names, are, evidence)).map((cause) => ({
      ...cause,
      source: cause.source ?? evidence.sources.find(`process.env.${found[0]?.variable.name}`),
    })),
    ...readFromProcess(known, evidence),
  ]
}

/** `process.env.NAME` in a script that runs it without asking for `process`: the framework reads such variables in another way. */
function readFromProcess(known: ReadonlySet<string>, evidence: Evidence): Cause[] {
  const { unmet, sources } = evidence
  const read = unmet.filter(({ variable }) => variable !== null && !known.has(variable))
  const names = [...new Set(read.flatMap(({ variable }) => variable ?? []))].sort()
  const [first] = names
  if (first === undefined) return []
  return [
    {
      key: names.join(' '),
      ...wordsOf(listed(names), names.length > 1 ? 'are' : 'is', evidence),
      impact: `The script stops with "process is not defined" where it reads ${listed(names)}.`,
      places: read.map(({ file, offset, length }): CausePlace => ({ file, offset, length })),
      source: sources.find(`process.env.${first}`),
    },
  ]
}

function wordsOf(names: string, are: string, evidence: Evidence): Pick<Cause, 'impact' | 'cause' | 'fix'> {
  return {
    impact: `The script stops, or works with undefined, where ${names} ${are} needed.`,
    cause: `The build left the read of ${names} in the code; a browser has no environment to read from.`,
    fix: [
      way(evidence.survey.definition?.environmentObjects, evidence.survey.prefixes?.value ?? []),
      rebuild(evidence),
    ],
  }
}

function way(objects: readonly string[] = [], prefixes: readonly string[]): string {
  const object = objects[0]
  if (!object) return 'Read it the way the bundler replaces it, or let the bundler define it.'
  const prefix = prefixes.find((each) => each !== '')
  return `Read it as ${object}.${prefix ?? ''}NAME${prefix ? `: only names that begin with ${prefix} reach the browser` : ''}.`
}
