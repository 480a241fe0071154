import type { Place } from '../../model/reading.ts'

/** What is known of an expression without running it, with the place it is written at. */
export type Folded =
  | { readonly kind: 'value'; readonly value: Primitive; readonly at: Place }
  | {
      readonly kind: 'object'
      readonly members: ReadonlyMap<string, Folded>
      readonly open: boolean
      readonly at: Place
    }
  | { readonly kind: 'list'; readonly items: readonly Folded[]; readonly at: Place }
  | { readonly kind: 'function'; readonly call: (args: readonly Folded[]) => Folded; readonly at: Place }
  | { readonly kind: 'computed'; readonly expression: string; readonly at: Place }
  | {
      /** A call that is not followed: of a plugin, an adapter. `callee` is the package it comes from, or its text. */
      readonly kind: 'call'
      readonly callee: string
      readonly args: readonly Folded[]
      readonly expression: string
      readonly at: Place
    }

export type Primitive = string | number | boolean | null | undefined

/**
 * Stands for the project's own directory in folded paths, so that they can be distinguished from paths elsewhere.
 * No real path begins so.
 */
export const projectRoot = '/\u0001project'

/** A path below the project, from an absolute or relative one; null when it is elsewhere. */
export function belowProject(path: string): string | null {
  if (path === projectRoot) return ''
  if (path.startsWith(`${projectRoot}/`)) return path.slice(projectRoot.length + 1)
  return path.startsWith('/') || /^[A-Za-z]:[\\/]/.test(path) ? null : path
}

/** A member of a folded object, through a path of names. An object that may hold more than is seen answers "computed". */
export function member(value: Folded | null, ...path: readonly string[]): Folded | null {
  let at = value
  for (const name of path) {
    if (!at) return null
    if (at.kind === 'computed' || at.kind === 'call')
      return { kind: 'computed', expression: at.expression, at: at.at }
    if (at.kind !== 'object') return null
    const next: Folded | undefined = at.members.get(name)
    if (!next) return at.open ? { kind: 'computed', expression: '…', at: at.at } : null
    at = next
  }
  return at && at.kind === 'value' && at.value === undefined ? null : at
}
