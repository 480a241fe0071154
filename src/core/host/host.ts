/** How a host answers requests: a preset, or a description of the same shape. */
export interface Host {
  readonly name: string
  /** One sentence for a person. */
  readonly about: string
  /** The file that answers for a directory. */
  readonly directoryIndex: string
  /** `/about` may be answered with `about.html`. */
  readonly extensionless: boolean
  /**
   * What unknown paths get: the first of these documents that is there, with this status; or null for the host's own
   * 404 page. A shell that the framework wrote for the purpose comes before the entry document.
   */
  readonly fallback: { readonly documents: readonly string[]; readonly status: number } | null
  /** Steps of a path that the host never serves, as beginnings: `_`, `.`. Some hosts drop such names. */
  readonly withheld: readonly string[]
}

/** What kind of rule answered. */
export type AnsweredBy =
  | 'file'
  | 'directory index'
  | 'extensionless name'
  | 'redirect'
  | 'fallback'
  | 'withheld'
  | 'nothing'
  | 'outside'
  | 'malformed'

/** What a host says to one request. */
export interface Answer {
  readonly status: number
  /** The file sent, or null when the answer is the host's own. */
  readonly file: string | null
  readonly contentType: string | null
  readonly location: string | null
  readonly by: AnsweredBy
  /** Which rule answered, in words that complete "answered by …". */
  readonly rule: string
}

/** The files a host can see. */
export interface HostFiles {
  has(path: string): boolean
  isDirectory(path: string): boolean
}
