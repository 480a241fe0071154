import { defineCheck, rebuild } from '../check.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** A read of the environment that the build left in. */
export const unreplaced = defineCheck({
  code: 'env/unreplaced',
  severity: 'blocker',
  title: 'A variable was never replaced',
  keywords: ['process is not defined', 'import.meta.env', 'process.env'],
  run: (evidence) =>
    causeOf(variablesIn('unreplaced', 'unreplaced', evidence), (names, are) => ({
      impact: `The script stops, or works with undefined, where ${names} ${are} needed.`,
      cause: `The build left the read of ${names} in the code; a browser has no environment to read from.`,
      fix: [
        way(evidence.survey.definition?.environmentObjects, evidence.survey.prefixes?.value ?? []),
        rebuild(evidence),
      ],
    })),
})

function way(objects: readonly string[] = [], prefixes: readonly string[]): string {
  const object = objects[0]
  if (!object) return 'Read it the way the bundler replaces it, or let the bundler define it.'
  const prefix = prefixes.find((each) => each !== '')
  return `Read it as ${object}.${prefix ?? ''}NAME${prefix ? `: only names that begin with ${prefix} reach the browser` : ''}.`
}
