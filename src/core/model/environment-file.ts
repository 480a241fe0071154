import { nameOf } from './folder.ts'

/** A file of lines `NAME=value`; some frameworks keep variables in a module of the sources. */
export function isEnvironmentFile(file: string): boolean {
  return nameOf(file).startsWith('.env') || file.endsWith('.env')
}
