import { isEnvironmentFile } from '../../model/environment-file.ts'
import type { Edit, EnvironmentState } from '../../model/report.ts'
import { listed } from '../../model/text.ts'
import { machineEnvironment } from '../../output/machine-environment.ts'
import { isPrivateName } from '../../project/environment-files.ts'
import { type Cause, type CauseFix, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The value of a variable that must not ship is in the build. */
export const privateValue = defineCheck({
  code: 'env/private-value',
  severity: 'blocker',
  title: 'A private value is in the build',
  keywords: ['secret', 'leak', 'password', 'process.env'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const whole = machineEnvironments(evidence)
  const found = variablesIn('private', 'private', evidence)
  const isInside = ({ places }: { readonly places: readonly CausePlace[] }): boolean =>
    places.length > 0 && places.every((place) => whole.some((each) => holds(each, place)))
  const alone = found.filter((each) => !isInside(each))
  const begun = alone.filter(({ variable }) => prefixOf(variable.name, evidence) !== null)
  const others = alone.filter(({ variable }) => prefixOf(variable.name, evidence) === null)
  return [
    ...ofMachine(
      whole,
      found.filter(isInside).map(({ variable }) => variable),
      evidence,
    ),
    ...causeOf(others, (names, are, variables) => ({
      impact: impactOf(names),
      cause: `The value of ${names}, which ${are} not public, stands in the build.`,
      fix: isPassedWhole(variables, evidence)
        ? onlyWhatIsRead(evidence)
        : stepsOf([`${takenOut(variables)}, and let a server use the value.`], evidence),
    })),
    ...causeOf(begun, (names, _, variables) => ({
      impact: impactOf(names),
      cause: `By its name ${names} is a secret, and what begins with ${prefixOf(variables[0]?.name ?? '', evidence)} is put into the files that browsers load.`,
      fix: withoutPrefix(variables, evidence),
    })),
  ]
}

function impactOf(names: string): string {
  return `Anybody can read the value of ${names} in the published files.`
}

type Shown = CausePlace & { readonly offset: number; readonly reason: string }

function machineEnvironments({ facts }: Evidence): Shown[] {
  return facts.flatMap(({ path, credentials }) =>
    credentials
      .filter(({ kind }) => kind === machineEnvironment)
      .map(({ offset, length, reason }) => ({ file: path, offset, length, reason })),
  )
}

function holds(whole: Shown, { file, offset }: CausePlace): boolean {
  return (
    file === whole.file && offset !== null && offset >= whole.offset && offset < whole.offset + whole.length
  )
}

/** The configuration defines the whole environment for browsers: the variables of a project are the least of it. */
function ofMachine(whole: readonly Shown[], known: readonly EnvironmentState[], evidence: Evidence): Cause[] {
  const [first] = whole
  if (!first) return []
  const names = known.map(({ name }) => name)
  const among = names.length > 0 ? `, ${listed(names)} among them` : ''
  return [
    {
      key: 'machine',
      impact: `Anybody can read all variables of the machine that built this${among}.`,
      cause: `${first.file} holds ${machineEnvironment}: ${first.reason}.`,
      places: whole.map(({ file, offset, length }) => ({ file, offset, length })),
      source: evidence.survey.passedWhole?.place ?? null,
      fix: onlyWhatIsRead(evidence),
    },
  ]
}

/** These came with all others: nothing passes one of them on by its name. */
function isPassedWhole(variables: readonly EnvironmentState[], { survey }: Evidence): boolean {
  const named = new Set(survey.reads.filter(({ passedOn }) => passedOn).map(({ name }) => name))
  return survey.passedWhole !== null && variables.every(({ name }) => !named.has(name))
}

function onlyWhatIsRead(evidence: Evidence): CauseFix {
  const whole = evidence.survey.passedWhole
  if (!whole)
    return stepsOf(
      ['Pass on only the variables that the sources read, one by one, and not all that process.env holds.'],
      evidence,
    )
  const { place, text, names } = whole
  const at = `In ${place.file}:${place.line}`
  if (names === null)
    return stepsOf(
      [`${at}, pass on only the variables that the sources need, one by one, in place of ${text}.`],
      evidence,
    )
  const secret = names.filter(isPrivateName)
  const write = objectOf(
    text,
    names.filter((name) => !isPrivateName(name)),
  )
  const edit: Edit = { file: place.file, line: place.line, column: place.column, instead: text, write }
  const steps = [`${at}, write ${write} in place of ${text}.`]
  if (secret.length > 0) steps.push(`Let a server do what the sources read ${listed(secret)} for.`)
  return { ...stepsOf(steps, evidence), edits: secret.length > 0 ? [] : [edit] }
}

function objectOf(whole: string, names: readonly string[]): string {
  const members = names.map((name) =>
    /^[\w$]+$/.test(name) ? `${name}: ${whole}.${name}` : `'${name}': ${whole}['${name}']`,
  )
  return members.length > 0 ? `{ ${members.join(', ')} }` : '{}'
}

function prefixOf(name: string, { survey }: Evidence): string | null {
  return survey.prefixes?.value?.find((each) => each !== '' && name.startsWith(each)) ?? null
}

/** A variable that no source reads came with an object of all: without its prefix it stays behind, and nothing lacks it. */
function withoutPrefix(variables: readonly EnvironmentState[], evidence: Evidence): CauseFix {
  const { prefixes } = evidence.survey
  const own = prefixOf(variables[0]?.name ?? '', evidence) ?? ''
  const from = prefixes?.certainty === 'stated' && 'file' in prefixes.from ? prefixes.from : null
  const isUnread = variables.every(({ readAt, inProcess }) => readAt.length === 0 && !inProcess)
  const edits = isUnread ? variables.flatMap((variable) => renamed(variable, evidence)) : []
  if (edits.length > 0)
    return {
      ...stepsOf(
        edits.map(
          ({ file, line, instead, write }) => `In ${file}:${line}, call it ${write}, not ${instead}.`,
        ),
        evidence,
      ),
      edits,
    }
  const step = from
    ? `In ${from.file}:${from.line}, take ${own} out of the prefixes, and let a server use the value: what a browser needs it for, everybody can do.`
    : 'Take the prefix off its name, and let a server use the value: what a browser needs it for, everybody can do.'
  return stepsOf([step], evidence)
}

function renamed({ name, definedIn }: EnvironmentState, evidence: Evidence): Edit[] {
  const bare = name.slice(prefixOf(name, evidence)?.length ?? 0)
  if (!definedIn.every(({ file }) => isEnvironmentFile(file)) || prefixOf(bare, evidence) !== null) return []
  return definedIn.map(({ file, line }) => ({ file, line, instead: name, write: bare }))
}

function takenOut(variables: readonly EnvironmentState[]): string {
  const [at] = variables.flatMap(({ readAt }) => readAt)
  const names = listed(variables.map(({ name }) => name))
  return at
    ? `Take ${names} out of what browsers get: ${at.file}:${at.line} passes it on`
    : `Take ${names} out of what the bundler defines or makes public`
}

function stepsOf(steps: readonly string[], evidence: Evidence): CauseFix {
  return {
    steps: [
      ...steps,
      rebuild(evidence),
      'If this build was ever published: replace the value where it gives access.',
    ],
  }
}
