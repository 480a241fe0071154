/** A message of a page, with where the script says it comes from. */
export interface PageMessage {
  readonly text: string
  /** The built file, when the browser names one of this site. */
  readonly file: string | null
  /** From one, as browsers count them. */
  readonly line: number
  readonly column: number
}

/** A request that a page made and that did not end well. */
export interface FailedRequest {
  readonly url: string
  /** The status of the answer; null when the browser refused, or nothing came. */
  readonly status: number | null
  readonly reason: string
  /** Whether a script requested it as data, with fetch or its older. */
  readonly data: boolean
}

/** A request for another origin. */
export interface LeftRequest {
  readonly url: string
  readonly method: string
  readonly outcome: 'not sent' | 'answered by the stand-in' | 'sent'
}

/** One route, opened by a stranger at one width. */
export interface Visit {
  readonly route: string
  /** CSS pixels; null for a visit without a browser. */
  readonly width: number | null
  readonly status: number | null
  /** Requests of the page for its own site, documents among them. */
  readonly requests: number
  readonly errors: readonly PageMessage[]
  readonly complaints: readonly (PageMessage & { readonly kind: 'error' | 'warning' })[]
  readonly failed: readonly FailedRequest[]
  readonly left: readonly LeftRequest[]
  readonly blank: boolean
  /** Whether the page is wider than the window. */
  readonly overflows: boolean
  /** The status when the page was loaded again; null when it was not. */
  readonly again: number | null
  /** The service worker that the page requested, and what came of it. */
  readonly worker: string | null
  readonly milliseconds: number
  /** The picture that was kept, when one was. */
  readonly picture: string | null
}

/** What a rehearsal saw. */
export interface Rehearsal {
  readonly by: 'requests' | 'browser'
  readonly visits: readonly Visit[]
  /** Paths of the site that pages link to and that no visit opened: they exist only by clicking, or nobody listed them. */
  readonly linked: readonly string[]
  /** Where the served site did other than predicted; each is a defect of this program. */
  readonly differences: readonly string[]
}
