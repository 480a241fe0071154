import type { EnvironmentState } from '../../model/report.ts'
import { listed } from '../../model/text.ts'
import { type Cause, type CauseFix, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A variable the source relies on was not there when the build ran. */
export const absent = defineCheck({
  code: 'env/absent',
  severity: 'blocker',
  title: 'A variable was missing when this was built',
  keywords: ['undefined', 'environment variable', '.env', 'missing variable'],
  run,
})

/** One cause where several variables are missing together: the build machine had none of them. */
function run(evidence: Evidence): Cause[] {
  const missing = evidence.environment.filter(({ state }) => state === 'absent')
  const first = missing[0]
  if (!first) return []
  const names = missing.map(({ name }) => name)
  const places = missing.flatMap((variable) => showingsFor(variable, evidence))
  const list = listed(names)
  const withPlaces = listed(
    missing.map(({ name, readAt: [at] }) => (at ? `${name} (${at.file}:${at.line})` : name)),
  )
  const source = first.readAt[0] ?? null
  return [
    {
      key: names.join(' '),
      title: names.length > 1 ? `${names.length} variables were missing when this was built` : absent.title,
      impact: `What needs ${list} does not work: the bundle holds undefined instead.`,
      cause: `${withPlaces} ${names.length > 1 ? 'are' : 'is'} read without a fallback, and ${names.length > 1 ? 'were' : 'was'} not set when the build ran.`,
      places,
      source,
      fix: { steps: steps(missing, evidence), edits: editsOf(names, evidence) },
    },
  ]
}

function showingsFor({ name, readAt }: EnvironmentState, { facts, survey }: Evidence): CausePlace[] {
  return facts.flatMap(({ path, occurrences }) =>
    occurrences
      .filter((occurrence) => occurrence.name === name && ['absent', 'lacking'].includes(occurrence.state))
      .map(({ offset, length, read }) => {
        const source = read === null ? readAt[0] : survey.reads[read]?.place
        return { file: path, offset, length, ...(source ? { source } : {}) }
      }),
  )
}

function steps(missing: readonly EnvironmentState[], evidence: Evidence): string[] {
  const names = missing.map(({ name }) => name).join(' and ')
  const defined = missing.flatMap(({ definedIn }) => definedIn).at(-1)
  const inProcess = missing.every((variable) => variable.inProcess)
  const file = evidence.survey.environmentTarget
  const prefix = evidence.survey.prefixes?.value?.find((each) => each !== '')
  const hidden = prefix !== undefined && missing.every(({ name }) => !name.startsWith(prefix))
  const where = hidden
    ? `Only names that begin with ${prefix} reach the browser: call it ${prefix}${names}, in the environment and in the sources.`
    : inProcess
      ? `${names}: set in the environment now, so this build is older or ran without it.`
      : defined
        ? `${names}: ${defined.file} sets it now, so this build is older or ran without that file.`
        : `Set ${names} where the build runs${pipeline(evidence)}${file ? `, or in ${file}` : ''}.`
  return [where, rebuild(evidence)]
}

/** The file that gives the build its other variables. */
function pipeline({ survey }: Evidence): string {
  const [first] = survey.deployVariables
  const at = first?.names.values().next().value
  return at ? ` (${at.file}:${at.line} sets others)` : ''
}

function editsOf(names: readonly string[], { survey }: Evidence): NonNullable<CauseFix['edits']> {
  const file = survey.environmentTarget
  return file ? [{ file, line: null, write: names.map((name) => `${name}=…`).join('\n') }] : []
}
