import type { Dependence, Place } from '../model/reading.ts'

/** What is known of an expression without running it, with the place it is written at. */
export type Folded =
  | {
      readonly kind: 'value'
      readonly value: Primitive
      readonly at: Place
      /** The variable that may have set another value. */
      readonly dependsOn?: Dependence
    }
  | {
      readonly kind: 'object'
      readonly members: ReadonlyMap<string, Folded>
      /** It may hold more than is seen; `environment`, where what is not seen are variables. */
      readonly open: boolean | 'environment'
      readonly at: Place
    }
  | { readonly kind: 'list'; readonly items: readonly Folded[]; readonly at: Place }
  | { readonly kind: 'function'; readonly call: (args: readonly Folded[]) => Folded; readonly at: Place }
  | Computed
  | {
      /** A call that is not followed: of a plugin, an adapter. `callee` is the package it comes from, or its text. */
      readonly kind: 'call'
      readonly callee: string
      readonly args: readonly Folded[]
      readonly expression: string
      readonly at: Place
    }

/** What only the running code knows. */
export interface Computed {
  readonly kind: 'computed'
  /** The code, on one line. */
  readonly expression: string
  readonly at: Place
  /** The variable of the environment that it is, where it is one. */
  readonly variable?: string
  /** The text that its value begins with, as far as that is known. */
  readonly begins?: string
}

export type Primitive = string | number | boolean | null | undefined

/** A member of a folded object, through a path of names. An object that may hold more than is seen answers "computed". */
export function member(value: Folded | null, ...path: readonly string[]): Folded | null {
  let at = value
  for (const name of path) {
    if (!at) return null
    if (at.kind === 'computed' || at.kind === 'call')
      return { kind: 'computed', expression: at.expression, at: at.at }
    if (at.kind !== 'object') return null
    const next: Folded | undefined = at.members.get(name)
    if (!next) return at.open ? notSeen(at, name) : null
    at = next
  }
  return at && at.kind === 'value' && at.value === undefined ? null : at
}

function notSeen({ open, at }: Folded & { kind: 'object' }, name: string): Computed {
  return { kind: 'computed', expression: '…', at, ...(open === 'environment' ? { variable: name } : {}) }
}

/** A value that is folded when it is first requested. */
export type Lazy = () => Folded

/** Folds at most once; a value that refers to itself is said to. */
export function once(make: Lazy): Lazy {
  let state: Folded | 'busy' | null = null
  return () => {
    if (state === 'busy')
      return { kind: 'computed', expression: '(refers to itself)', at: { file: '', line: 1, column: 1 } }
    if (state === null) {
      state = 'busy'
      state = make()
    }
    return state
  }
}

/** Whether a value counts as true; null when that is not known. */
export function truthOf(value: Folded): boolean | null {
  if (value.kind === 'computed' || value.kind === 'call') return null
  return value.kind === 'value' ? Boolean(value.value) : true
}

/** The value, or the fallback when the value is missing. */
export function orElse(value: Folded, fallback: Lazy): Folded {
  if (value.kind === 'value') return value.value === null || value.value === undefined ? fallback() : value
  return isUnset(value) ? without(value, fallback()) : value
}

/** A value that stands in for a variable which nobody in the project sets. */
export function without(variable: Folded, value: Folded): Folded {
  const name = variable.kind === 'computed' ? variable.variable : undefined
  return value.kind === 'value' && name !== undefined
    ? { ...value, dependsOn: value.dependsOn ?? { variable: name } }
    : value
}

/** A value that others have decided on: it depends on the variable that one of these depends on. */
export function decidedBy(value: Folded, ...others: readonly Folded[]): Folded {
  const [on] = others.flatMap((other) => (other.kind === 'value' ? (other.dependsOn ?? []) : []))
  return value.kind === 'value' && on !== undefined ? { dependsOn: on, ...value } : value
}

/** A variable that nobody in the project sets is taken as unset: the default is what a plain build uses. */
export function isUnset(value: Folded): boolean {
  return value.kind === 'computed' && value.variable !== undefined
}

/** An expression on one line, cut where it grows long. */
export function shorten(expression: string): string {
  const line = expression.replace(/\s+/g, ' ')
  return line.length > 120 ? `${line.slice(0, 119)}…` : line
}
