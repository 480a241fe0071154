import type { Occurrence } from '../model/facts.ts'
import type { EnvironmentState } from '../model/report.ts'
import { listed } from '../model/text.ts'
import type { Cause, CausePlace, Evidence } from './check.ts'

/** The variables in one state, each with the places of the build that show it. */
export function variablesIn(
  state: EnvironmentState['state'],
  sighted: Occurrence['state'],
  { environment, facts }: Evidence,
): { variable: EnvironmentState; places: CausePlace[] }[] {
  return environment
    .filter((variable) => variable.state === state)
    .map((variable) => ({
      variable,
      places: facts.flatMap(({ path, occurrences }) =>
        occurrences
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

/** One finding for all variables of one cause, reported by their names. */
export function causeOf(
  found: readonly { variable: EnvironmentState; places: CausePlace[] }[],
  tell: (
    names: string,
    are: string,
    variables: readonly EnvironmentState[],
  ) => Pick<Cause, 'impact' | 'cause' | 'fix'> & { readonly title?: string },
): Cause[] {
  const [first] = found
  if (!first) return []
  const names = found.map(({ variable }) => variable.name)
  const { variable } = first
  return [
    {
      key: names.join(' '),
      ...tell(
        listed(names),
        names.length > 1 ? 'are' : 'is',
        found.map(({ variable: each }) => each),
      ),
      places: found.flatMap(({ places }) => places),
      source: variable.readAt[0] ?? variable.definedIn.at(-1) ?? null,
    },
  ]
}
