import { type Position, positionAt } from './text.ts'

/** A place in a file. Paths are relative to the folder they were found in. */
export interface Place extends Position {
  readonly file: string
}

/** Where a value was read: a place, or the name of what sets it when nobody says otherwise. */
export type Origin = Place | { readonly by: string }

/**
 * How sure a reading is. `stated`: written in the project. `default`: the framework's, because nothing is written.
 * `inferred`: read off something else, as the output. `computed`: written, but not to be known without running code.
 */
export type Certainty = 'stated' | 'default' | 'inferred' | 'computed'

/** A detected value with where it was read. A computed reading has the value null and shows its expression. */
export interface Reading<T> {
  readonly value: T
  readonly from: Origin
  readonly certainty: Certainty
  readonly expression?: string
  /** The variable of the environment that may have set another value when the build ran. */
  readonly dependsOn?: string
  /** Where the variable is set to what this value follows from. Without it, the value is that of no variable set. */
  readonly setAt?: Place
  /** What keeps a written value from reaching the output, and what lets it; the output shows whether it does. */
  readonly inactive?: Inactive
}

/** Why a written value has no effect. */
export interface Inactive {
  /** Completes "is not in force: …". */
  readonly because: string
  /** What to do: one sentence. */
  readonly step: string
  /** The option of the build command that lets it, where it is one. */
  readonly option?: string | undefined
}

/** Whether the project alone does not tell what a build took: then the output decides. */
export function isUncertain({
  certainty,
  dependsOn,
  inactive,
}: {
  readonly certainty: Certainty
  readonly dependsOn?: string | undefined
  readonly inactive?: Inactive | undefined
}): boolean {
  return certainty === 'computed' || dependsOn !== undefined || inactive !== undefined
}

/** The variable of the environment that a value depends on, and where it is set, when a file of the project sets it. */
export interface Dependence {
  readonly variable: string
  readonly setAt?: Place
}

/** A reading written at a place. */
export function stated<T>(value: T, from: Place, dependence?: Dependence): Reading<T> {
  const { variable: dependsOn, setAt } = dependence ?? {}
  return { value, from, certainty: 'stated', ...(dependsOn && { dependsOn }), ...(setAt && { setAt }) }
}

/** A reading that holds because nothing else is said. `by` completes the sentence "set by …". */
export function byDefault<T>(value: T, by: string): Reading<T> {
  return { value, from: { by }, certainty: 'default' }
}

/** A reading read off something else. */
export function inferred<T>(value: T, from: Origin): Reading<T> {
  return { value, from, certainty: 'inferred' }
}

/** A reading that is written as code we don't run. */
export function computed(expression: string, from: Place): Reading<null> {
  return { value: null, from, certainty: 'computed', expression }
}

/** The place of an offset in a file's text. */
export function placeAt(file: string, text: string, offset: number): Place {
  return { file, ...positionAt(text, offset) }
}

/** Whether one setting says both. */
export function isFromSame({ from }: Reading<unknown>, other: Reading<unknown>): boolean {
  return JSON.stringify(from) === JSON.stringify(other.from)
}

/** `vite.config.ts:5`, or what set the value: "Vite's default". */
export function describeOrigin(from: Origin): string {
  return 'file' in from ? `${from.file}:${from.line}` : from.by
}
