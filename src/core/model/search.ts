/** What to look for besides references: the values of variables, and the marks their absence would leave. */
export interface Search {
  /** Values to find. They are held in memory only, and never leave the search. */
  readonly values: readonly SearchedValue[]
  readonly traces: readonly Trace[]
  /** Texts that no cache may keep: the values of all variables, public or not. */
  readonly secrets: readonly string[]
  /** Names read without a guard: one that stands in built code as a member of `env` was never replaced. */
  readonly names: readonly string[]
  /** Names that sources read of `process.env` where the build puts nothing in its place. */
  readonly ofProcess?: readonly string[]
  /** Paths of the own origin that only the development server answers. */
  readonly paths: readonly string[]
}

/** A value to find. */
export interface SearchedValue {
  readonly name: string
  readonly value: string
  /** What it means to find it. */
  readonly role: 'present' | 'development' | 'private'
}

/**
 * What stands around a variable where the source reads it, so that the built code can be requested what became of it.
 * `template`: the fixed text on either side. `property`: the key it is the value of, with the object's other keys; `missing`
 * are texts that stand there when it was not set. `object`: the whole environment, which the build writes out. `thrown`: what an error says
 * that is thrown for want of it. `marker`: the
 * text that the build replaces in a page. `blank`: what a page's template has on both sides of it, on the same line.
 */
export type Trace = {
  readonly name: string
  /** Index of the source read. */
  readonly read: number
} & (
  | { readonly kind: 'template'; readonly before: string; readonly after: string }
  | {
      readonly kind: 'property'
      readonly key: string
      readonly siblings: readonly string[]
      readonly missing?: readonly string[]
    }
  | { readonly kind: 'object' }
  | { readonly kind: 'thrown'; readonly message: string }
  | { readonly kind: 'marker'; readonly marker: string }
  | { readonly kind: 'blank'; readonly before: string; readonly after: string }
)

/** Nothing to look for. */
export const noSearch: Search = { values: [], traces: [], secrets: [], names: [], paths: [] }
