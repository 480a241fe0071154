import type { Place } from '../model/reading.ts'
import type { Rule } from '../model/rule.ts'
import type { HttpdHost } from './httpd/read.ts'
import type { NginxHost } from './nginx/read.ts'

/** Documents of which the first that is there is sent, and the status it is sent with. */
export interface Documents {
  readonly documents: readonly string[]
  readonly status: number
}

/** How a host answers requests: a preset, or a description of the same shape. */
export interface Host {
  readonly name: string
  /** One sentence for a person. */
  readonly about: string
  /** The file that answers for a directory. */
  readonly directoryIndex: string
  /** `/about` may be answered with `about.html`. */
  readonly extensionless: boolean
  /** What becomes of the last slash of a page's path: as it is, added by a redirect, or dropped by one. */
  readonly trailingSlash: 'keep' | 'add' | 'drop'
  /** Rules, the first that fits wins. */
  readonly rules: readonly Rule[]
  /**
   * What unknown paths get as if it were theirs, or null. A shell that the framework wrote for the purpose comes before
   * the entry document.
   */
  readonly fallback: Documents | null
  /** What unknown paths get as an error, or null for the host's own page and 404. */
  readonly notFound: Documents | null
  /** Steps of a path that the host never serves, as beginnings: `_`, `.`. Some hosts drop such names. */
  readonly withheld: readonly string[]
  /** Whether `/Logo.svg` is answered with `logo.svg`. */
  readonly letterCase: 'kept' | 'ignored'
  /** Content types by extension, where they differ from the usual ones. */
  readonly contentTypes: Readonly<Record<string, string>>
  /** A server's own configuration, which answers in place of all of the above. */
  readonly server?: NginxHost | HttpdHost
  /** What the host accepts at most; null for no limit known. Files; bytes. */
  readonly limits: { readonly files: number | null; readonly fileBytes: number | null }
}

/** What kind of rule answered. */
export type AnsweredBy =
  | 'file'
  | 'directory index'
  | 'extensionless name'
  | 'redirect'
  | 'rule'
  | 'proxy'
  | 'fallback'
  | 'not-found document'
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
  /** Where the visitor is sent, as the host writes it; null for all but redirects. */
  readonly location: string | null
  readonly by: AnsweredBy
  /** Which rule answered, in words that complete "answered by …". */
  readonly rule: string
  /** For how long a browser keeps what is sent without asking again, where the server's configuration says so; seconds. */
  readonly keptFor?: number
  /** What the server's configuration says that is not followed, where it may make this another answer. */
  readonly unclear?: { readonly what: string; readonly place: Place }
}

/** The files a host can see. */
export interface HostFiles {
  has(path: string): boolean
  isDirectory(path: string): boolean
  /** A file that differs only in letter case, or null. */
  nearlyNamed(path: string): string | null
}
