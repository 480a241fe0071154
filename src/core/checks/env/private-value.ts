import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The value of a variable that must not ship is in the build. */
export const privateValue = defineCheck({
  code: 'env/private-value',
  severity: 'blocker',
  title: 'A private value is in the build',
  keywords: ['secret', 'leak', 'password'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { survey } = evidence
  const prefix = (name: string): string | undefined =>
    survey.prefixes?.value?.find((each) => each !== '' && name.startsWith(each))
  const found = variablesIn('private', 'private', evidence)
  const begun = found.filter(({ variable }) => prefix(variable.name) !== undefined)
  const others = found.filter(({ variable }) => prefix(variable.name) === undefined)
  return [
    ...causeOf(others, (names, are) => ({
      impact: impactOf(names),
      cause: `The value of ${names}, which ${are} not public, stands in the build.`,
      fix: fixOf('Take it out of what the bundler defines or makes public.', evidence),
    })),
    ...causeOf(begun, (names) => ({
      impact: impactOf(names),
      cause: `By its name ${names} is a secret, and what begins with ${prefix(begun[0]?.variable.name ?? '')} is put into the files that browsers load.`,
      fix: fixOf(
        'Take the prefix off its name, and let a server use the value: what a browser needs it for, everybody can do.',
        evidence,
      ),
    })),
  ]
}

function impactOf(names: string): string {
  return `Anybody can read the value of ${names} in the published files.`
}

function fixOf(step: string, evidence: Evidence): string[] {
  return [
    step,
    rebuild(evidence),
    'If this build was ever published: replace the value where it gives access.',
  ]
}
