import type { AddressKind } from '../model/address.ts'
import type { RequestSettings } from '../model/facts.ts'
import type { Place } from '../model/reading.ts'

/** A place of the build that names an endpoint. */
export interface EndpointPlace {
  readonly file: string
  readonly offset: number
  readonly length: number
}

/** How sure it is that visitors' browsers request it. `called` is proof; `likely` leaves it to a person. */
export type EndpointCertainty = 'called' | 'likely' | 'harmless'

/** An address in the build, with what becomes of it. */
export interface Endpoint {
  readonly url: string
  /**
   * `forwarded path`: of the own origin, and only the development server answers it. `absent value`: it begins with
   * `undefined`, since what should stand there was missing when this was built. `own path`: of the own origin, and no file's.
   * `own host`: another port of the page's own host, `:6277/v1`.
   */
  readonly kind: AddressKind | 'forwarded path' | 'own path' | 'own host' | 'absent value'
  readonly certainty: EndpointCertainty
  /** Why: one phrase for a person. */
  readonly judgement: string
  /** What it is passed to, when that can be seen. */
  readonly flow: string | null
  /** How the call asks, when that can be seen. */
  readonly settings: RequestSettings | null
  readonly places: readonly EndpointPlace[]
  /** Where the project's own text has it: an environment file, or a source. */
  readonly source: Place | null
  /** The variable that carried it. */
  readonly variable: string | null
}
