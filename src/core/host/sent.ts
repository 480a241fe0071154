import type { Place } from '../model/reading.ts'
import type { Site } from '../model/site.ts'
import { safeDecode } from '../model/text.ts'
import { insideOf } from './disk.ts'
import type { Answer, AnsweredBy } from './host.ts'

/** How a server came to its answer: by the path itself, by another path of its own, as an error, by a rule, by another program. */
export type Way = 'own' | 'internal' | 'error' | 'rule' | 'passed'

/** What a model can't tell, and where it is written. */
export interface Unclear {
  readonly what: string
  readonly place: Place
}

/** What a server sends, with paths of its own disk. */
export interface SentByServer {
  readonly status: number
  readonly file: string | null
  readonly contentType: string | null
  readonly location: string | null
  /** Seconds; null where nothing is said. */
  readonly keptFor: number | null
  readonly way: Way
  /** What may have made it another answer. */
  readonly unclear: Unclear | null
  /** What decided, in words that complete "answered by …". */
  readonly rule: string
}

/** The same as a host's answer. @param asked the path that was requested, decoded */
export function answerFrom(sent: SentByServer, site: Site, mount: string, asked: string): Answer {
  const file = sent.file === null ? null : insideOf(sent.file, mount)
  return {
    status: sent.status,
    file,
    contentType: sent.contentType,
    location: sent.location === null ? null : withinSite(sent.location, site),
    by: wayOf(sent, file, asked.slice(safeDecode(site.base).length)),
    rule: sent.rule,
    ...(sent.keptFor !== null && { keptFor: sent.keptFor }),
    ...(sent.unclear && { unclear: sent.unclear }),
  }
}

export function withoutRule(status: number, file: string | null): string {
  if (file !== null) return 'a file'
  return status === 403 ? 'nothing: a directory without an index' : 'nothing: there is no such file'
}

/** The server's own address before a path: a browser is sent on within the site. */
function withinSite(location: string, site: Site): string {
  if (!URL.canParse(location)) return location
  const url = new URL(location)
  const own = new URL(site.origin)
  return url.hostname === own.hostname && (url.port === '' || url.port === own.port)
    ? location.slice(location.indexOf('/', 8))
    : location
}

function wayOf({ way, status, location }: SentByServer, file: string | null, asked: string): AnsweredBy {
  if (location !== null) return 'redirect'
  if (way === 'passed') return 'proxy'
  if (file === null) return status < 400 ? 'rule' : 'nothing'
  if (file === asked) return 'file'
  if (
    asked === '' || asked.endsWith('/')
      ? file.startsWith(asked) && !file.slice(asked.length).includes('/')
      : false
  )
    return 'directory index'
  if (file === `${asked.replace(/\/$/, '')}.html`) return 'extensionless name'
  if (way === 'error') return 'not-found document'
  return way === 'internal' ? 'fallback' : 'rule'
}
