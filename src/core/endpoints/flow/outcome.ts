import type { Held } from './lists.ts'
import type { Sink } from './sinks.ts'

/** Why a URL that is in the code is not taken for one that is requested. */
export type Harmless =
  | 'base'
  | 'after own address'
  | 'compared'
  | 'reported'
  | 'guarded'
  | 'default'
  | 'replaced'
  | 'another'
  | 'behind'
  | 'other host'

/** Something a module gives to others: a name, and the members down to the URL. */
export interface Exported {
  readonly name: string
  readonly path: readonly string[]
  /** The bundler's number for the module, where modules of one file know each other by numbers. */
  readonly module: string | null
  /** Whether it is the value, or a list or state of it. */
  readonly held: Held
}

/** The page's own host is compared with a name, and a value is for pages of that host, or for all others. */
export interface ForHost {
  readonly name: string
  readonly isFor: boolean
}

/** What becomes of one value. */
export interface Outcome {
  /** What it is passed to. */
  readonly sinks: ReadonlySet<Sink>
  readonly harmless: ReadonlySet<Harmless>
  readonly exported: readonly Exported[]
  /** Hosts that decide whether it is taken. */
  readonly hosts: readonly ForHost[]
  /** What is put before it in a longer text, from the beginning of the address that it becomes a part of; null for what constants do not tell. */
  readonly before: readonly (string | null)[]
  /** Whether something took it that is not followed. */
  readonly isLost: boolean
  /** The names under which it was given to that: `picture` of `draw(Boat, { picture })`. */
  readonly lostAs: ReadonlySet<string>
  /** The text as it is put together for whoever requests it, as far as constants tell; empty when nothing is added. */
  readonly text: string
}
