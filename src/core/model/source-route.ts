import type { Place } from './reading.ts'

/** A path that the sources give a page to, relative to the base path. */
export interface SourceRoute {
  /** `/sailings/:id`; `*` for all that follows. */
  readonly pattern: string
  readonly place: Place
  /**
   * `table`: in the browser's own router, which takes any value for a parameter. `file`: a file that is a page, of which
   * only the values exist that the build made pages for.
   */
  readonly kind: 'table' | 'file'
}

/** Joins the parts of a route as routers do: one slash between, none at the end. */
export function joinRoute(...parts: readonly string[]): string {
  const steps = parts.flatMap((part) => part.split('/')).filter((step) => step !== '' && step !== '.')
  return `/${steps.join('/')}`
}

/** Whether a route stands for all that no other route takes. */
export function isCatchAll(pattern: string): boolean {
  return /(?:^|\/)\*/.test(pattern) || pattern.includes('**') || /:\w+\((?:\.\*)\)\*?/.test(pattern)
}

/** The parameters of a pattern, by name. */
export function parametersOf(pattern: string): string[] {
  return [...pattern.matchAll(/:(\w+)/g)].map((match) => match[1] ?? '')
}

/** The steps that must be there: optional ones (`:id?`, `{-$id}`) are left out, and what a parameter must look like too. */
export function plainPattern(pattern: string): string {
  const steps = pattern
    .split('/')
    .filter((step) => !/\?$/.test(step))
    .map((step) => step.replace(/(:\w+)\([^)]*\)/, '$1').replace(/[+]$/, ''))
  return joinRoute(...steps)
}
