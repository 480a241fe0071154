import { isEnvironmentFile } from '../model/environment-file.ts'
import type { Edit, EnvironmentState } from '../model/report.ts'

/** The line of an environment file that gives a variable a value, which a person must know. */
export function variableEdit(file: string, name: string): Edit {
  return { file, line: null, write: `${name}=…`, needs: name, whole: `${name}=\n` }
}

/** The lines that set these variables now, each to get another value; none where one of them is set elsewhere too, or nowhere. */
export function variableEdits(variables: readonly EnvironmentState[]): Edit[] {
  const files = variables.map(({ definedIn }) => definedIn.at(-1)?.file ?? null)
  if (!files.every((file) => file !== null && isEnvironmentFile(file))) return []
  return variables.flatMap(({ name }, index) => variableEdit(files[index] ?? '', name))
}
