import type { Sighting } from '../model/facts.ts'
import type { EnvironmentState } from '../model/report.ts'
import type { Cause, Evidence, Showing } from './check.ts'

/** The variables in one state, each with the places of the build that show it. */
export function variablesIn(
  state: EnvironmentState['state'],
  sighted: Sighting['state'],
  { environment, facts }: Evidence,
): { variable: EnvironmentState; showings: Showing[] }[] {
  return environment
    .filter((variable) => variable.state === state)
    .map((variable) => ({
      variable,
      showings: facts.flatMap(({ path, sightings }) =>
        sightings
          .filter(({ name, state: seen }) => name === variable.name && seen === sighted)
          // Where the value itself is seen, the shape around it adds nothing.
          .filter(({ read }, _, all) => read === null || all.every((each) => each.read !== null))
          .map(({ offset, length }) => {
            const source = variable.readAt[0]
            return { file: path, offset, length, ...(source ? { source } : {}) }
          }),
      ),
    }))
}

/** `A`, `A and B`, `A, B and C`. */
export function listed(names: readonly string[]): string {
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '')
}

/** One finding for all variables of one cause, told by their names. */
export function causeOf(
  found: readonly { variable: EnvironmentState; showings: Showing[] }[],
  tell: (
    names: string,
    are: string,
  ) => Pick<Cause, 'meets' | 'cause' | 'remedy'> & { readonly title?: string },
): Cause[] {
  const [first] = found
  if (!first) return []
  const names = found.map(({ variable }) => variable.name)
  const { variable } = first
  return [
    {
      key: names.join(' '),
      ...tell(listed(names), names.length > 1 ? 'are' : 'is'),
      showings: found.flatMap(({ showings }) => showings),
      source: variable.readAt[0] ?? variable.definedIn.at(-1) ?? null,
    },
  ]
}
