import type { EnvironmentState } from '../../model/report.ts'
import { listed } from '../../model/text.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'
import { setMissing } from '../missing-variables.ts'
import { causeOf, variablesIn } from '../variables.ts'
import { readByName } from './read-by-name.ts'

/** A read of the environment that the build left in. */
export const unreplaced = defineCheck({
  code: 'env/unreplaced',
  severity: 'blocker',
  title: 'A variable was never replaced',
  keywords: ['process is not defined', 'import.meta.env', 'process.env'],
  run,
})

async function run(evidence: Evidence): Promise<Cause[]> {
  const found = variablesIn('unreplaced', 'unreplaced', evidence)
  const known = new Set(found.map(({ variable }) => variable.name))
  return [
    ...causeOf(found, (names, are, variables) => wordsOf(names, are, evidence, variables)).map((cause) => ({
      ...cause,
      source: cause.source ?? evidence.sources.find(`process.env.${found[0]?.variable.name}`),
    })),
    ...readFromProcess(known, evidence),
    ...(await readByName(evidence)),
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

function wordsOf(
  names: string,
  are: string,
  evidence: Evidence,
  variables: readonly EnvironmentState[] = [],
): Pick<Cause, 'impact' | 'cause' | 'fix'> {
  return {
    impact: `The script stops, or works with undefined, where ${names} ${are} needed.`,
    cause: `The build left the read of ${names} in the code; a browser has no environment to read from.`,
    fix: isReadRightly(variables, evidence)
      ? setMissing(variables, evidence)
      : [way(evidence), rebuild(evidence)],
  }
}

/** Whether the builder puts in what is read so, and lacked a value: some leave such a read as it is. */
function isReadRightly(
  variables: readonly EnvironmentState[],
  { sources, survey: { definition, prefixes } }: Evidence,
): boolean {
  const [object] = definition?.environmentObjects ?? []
  if (!definition?.leavesUnset || object === undefined || variables.length === 0) return false
  return variables.every(
    ({ name }) =>
      prefixes?.value?.some((prefix) => name.startsWith(prefix)) === true &&
      sources.find(`${object}.${name}`) !== null,
  )
}

function way({ survey: { definition, framework, prefixes } }: Evidence): string {
  const object = framework === null ? undefined : definition?.environmentObjects[0]
  if (!object)
    return 'Set it where the build runs. Where it is left in the code all the same, read it the way the bundler replaces it, or let the bundler define it.'
  const prefix = (prefixes?.value ?? []).find((each) => each !== '')
  return `Read it as ${object}.${prefix ?? ''}NAME${prefix ? `: only names that begin with ${prefix} reach the browser` : ''}.`
}
