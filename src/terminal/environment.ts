import type { EnvironmentState, Report } from '../core/model/report.ts'
import { cut, type Style } from './style.ts'

/** States that request something to be done. */
const wrong: ReadonlySet<EnvironmentState['state']> = new Set([
  'absent',
  'unreplaced',
  'from development',
  'outdated',
  'private',
  'placeholder',
])

/** Whether any variable is not as it should be. */
export function hasWrongVariable({ environment }: Pick<Report, 'environment'>): boolean {
  return environment.some(({ state }) => wrong.has(state))
}

/** A line a variable: name, what became of it, where it is set and where it is read. Never a value. */
export function environmentTable(
  { environment }: Pick<Report, 'environment'>,
  { colors, width }: Style,
): string[] {
  const longest = Math.min(36, Math.max(...environment.map(({ name }) => name.length)))
  return [
    `  ${colors.bold('Variables')}`,
    ...environment.map(({ name, state, definedIn, readAt, inProcess }) => {
      const set = definedIn.at(-1)
      const read = readAt[0]
      const where = [
        inProcess ? 'set in this environment' : set ? `set at ${set.file}:${set.line}` : 'not set in a file',
        ...(read ? [`read at ${read.file}:${read.line}`] : []),
      ].join(', ')
      const reported = state.padEnd(17)
      const line = `    ${cut(name, longest).padEnd(longest + 2)}${wrong.has(state) ? colors.red(reported) : reported}`
      return `${line}${colors.dim(cut(where, Math.max(20, width - longest - 23)))}`
    }),
  ]
}
