import { nearest } from './text.ts'

/** "There is no host "fallbck". Did you mean fallback?" with the whole list when nothing is near. */
export function unknown(what: string, name: string, known: readonly string[]): string {
  const near = nearest(name, known)
  return `There is no ${what} "${name}". ${near ? `Did you mean ${near}?` : `There are: ${known.join(', ')}.`}`
}
