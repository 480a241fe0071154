import { contentTypeOf } from '../model/content-type.ts'
import { extensionOf } from '../model/folder.ts'
import { describeRule, matchRule, type Rule, targetOf } from '../model/rule.ts'
import { indexOf } from '../model/rule-index.ts'
import type { Site } from '../model/site.ts'
import { wellFormed } from '../model/text.ts'
import type { Answer, AnsweredBy, Host, HostFiles } from './host.ts'
import { answerOfHttpd } from './httpd/host.ts'
import { answerOfNginx } from './nginx/host.ts'

/** Bounds how often a redirect is followed, as browsers do; more is a loop. */
const mostRedirects = 20

/**
 * What the host answers to a GET of `pathname` (percent-encoded, as a browser sends it) at this site.
 * A pure function of the files and the host's rules. A file that exists comes first, then the rules in their order, then
 * the fallback, then the not-found document; a forced rule comes before the file.
 */
export function answer(host: Host, site: Site, files: HostFiles, pathname: string): Answer {
  const whole = decodePath(pathname)
  if (whole === null) return refusal(400, 'malformed', 'nothing: the path is not well encoded')
  if (host.server?.kind === 'nginx') return answerOfNginx(host.server, site, files, whole)
  if (host.server?.kind === 'httpd') return answerOfHttpd(host.server, site, files, whole, pathname)
  const said = answerByPath(host, site, files, pathname, whole)
  return byStatus(host, site, files, whole, said.status) ?? said
}

/** The rule that takes an answer of this status; null where none does. */
function byStatus(host: Host, site: Site, files: HostFiles, whole: string, status: number): Answer | null {
  for (const rule of host.rules) {
    const values =
      rule.onStatus?.includes(status) && rule.conditions.length === 0 ? matchRule(rule, whole) : null
    if (!values) continue
    const answer = byRule(host, site, files, rule, targetOf(rule, values))
    // A page in place of an error is what a fallback is.
    if (answer.file === null) return answer
    return { ...answer, by: answer.status < 400 ? 'fallback' : 'not-found document' }
  }
  return null
}

function answerByPath(host: Host, site: Site, files: HostFiles, pathname: string, whole: string): Answer {
  const own = ownAnswer(host, site, files, pathname, whole)
  const rule = host.rules.length > 0 ? indexOf(host.rules).first(whole, { onlyForced: own !== null }) : null
  const values = rule && matchRule(rule, whole)
  if (values) return byRule(host, site, files, rule, targetOf(rule, values))
  if (own) return own
  if (!pathname.startsWith(site.base)) {
    return refusal(404, 'outside', 'nothing: the path is outside the site')
  }
  return unknown(host, files, whole.slice(decodedBase(site).length))
}

/** What is at the path itself: a file, a directory, or the base path without its slash; null for nothing. */
function ownAnswer(host: Host, site: Site, files: HostFiles, pathname: string, whole: string): Answer | null {
  if (!pathname.startsWith(site.base)) {
    if (`${pathname}/` !== site.base) return null
    return redirect(site.base, 'the base path, with its last slash added')
  }
  const path = whole.slice(decodedBase(site).length)
  return isWithheld(host, path) ? null : fileAnswer(host, files, path, pathname)
}

function decodedBase({ base }: Site): string {
  return decodePath(base) ?? base
}

function isWithheld({ withheld }: Host, path: string): boolean {
  return (
    withheld.length > 0 && path.split('/').some((step) => withheld.some((start) => step.startsWith(start)))
  )
}

function fileAnswer(host: Host, files: HostFiles, path: string, pathname: string): Answer | null {
  const real = (name: string): string | null =>
    files.has(name) ? name : host.letterCase === 'ignored' ? files.nearlyNamed(name) : null
  const send = (name: string | null, by: AnsweredBy, rule: string): Answer | null =>
    name === null ? null : sent(host, name, 200, by, rule)

  if (path === '' || path.endsWith('/')) {
    const index = real(path + host.directoryIndex)
    if (index !== null && path !== '' && host.trailingSlash === 'drop') {
      return redirect(pathname.slice(0, -1), 'a directory, with its last slash dropped')
    }
    const rule = path === '' ? 'the entry document' : 'a directory index'
    return send(index, 'directory index', rule) ?? pageWithSlash(host, real, path, pathname)
  }
  const file = real(path)
  if (file !== null) return send(file, 'file', 'a file')
  const page = host.extensionless ? real(`${path}.html`) : null
  if (page !== null) {
    if (host.trailingSlash === 'add') return redirect(`${pathname}/`, 'a page, with its last slash added')
    return send(page, 'extensionless name', 'a file, .html left out')
  }
  if (!files.isDirectory(path)) return null
  if (host.trailingSlash === 'drop') {
    return send(real(`${path}/${host.directoryIndex}`), 'directory index', 'a directory index')
  }
  return redirect(`${pathname}/`, 'a directory, with its last slash added')
}

/** `/about/` where `about.html` is the page. */
function pageWithSlash(
  host: Host,
  real: (name: string) => string | null,
  path: string,
  pathname: string,
): Answer | null {
  const page = host.extensionless && path !== '' ? real(`${path.slice(0, -1)}.html`) : null
  if (page === null || host.trailingSlash === 'keep') return null
  if (host.trailingSlash === 'drop')
    return redirect(pathname.slice(0, -1), 'a page, with its last slash dropped')
  return sent(host, page, 200, 'extensionless name', 'a file, .html left out')
}

/** What becomes of a request that a rule takes. */
function byRule(host: Host, site: Site, files: HostFiles, rule: Rule, target: string | null): Answer {
  const reported = `the rule ${describeRule(rule)}`
  if (rule.status >= 300 && rule.status < 400) {
    return { ...redirect(encodeTarget(target ?? site.base), reported), status: rule.status, by: 'redirect' }
  }
  if (target === null) return refusal(rule.status, 'rule', reported)
  if (/^[a-z]+:/i.test(target)) {
    return { status: rule.status, file: null, contentType: null, location: null, by: 'proxy', rule: reported }
  }
  const file = fileAt(host, site, files, target)
  return file === null
    ? refusal(404, 'rule', `${reported}, which leads to no file`)
    : sent(host, file, rule.status, 'rule', reported)
}

/** The file that a rule means by a path of the site. */
function fileAt(host: Host, site: Site, files: HostFiles, target: string): string | null {
  const base = decodedBase(site)
  const path = target.startsWith(base) ? target.slice(base.length) : `${target}/` === base ? '' : null
  if (path === null || isWithheld(host, path)) return null
  const found = fileAnswer({ ...host, trailingSlash: 'keep' }, files, path, target)
  return (
    found?.file ?? (files.has(`${path}/${host.directoryIndex}`) ? `${path}/${host.directoryIndex}` : null)
  )
}

function unknown(host: Host, files: HostFiles, path: string): Answer {
  const first = (documents: readonly string[] = []): string | undefined =>
    documents.find((each) => files.has(each))
  const shell = first(host.fallback?.documents)
  const document = first(host.notFound?.documents)
  const said =
    host.fallback && shell !== undefined
      ? sent(host, shell, host.fallback.status, 'fallback', 'the fallback for unknown paths')
      : host.notFound && document !== undefined
        ? sent(
            host,
            document,
            host.notFound.status,
            'not-found document',
            'the document for what is not found',
          )
        : refusal(404, 'nothing', 'nothing: there is no such file')
  if (!isWithheld(host, path) || !files.has(path)) return said
  return { ...said, by: 'withheld', rule: `${said.rule}, since this host keeps such names back` }
}

/** Where redirects ended. */
export interface Followed {
  readonly answer: Answer
  /** The path that was answered last. */
  readonly pathname: string
  /** The paths and URLs that visitors were sent to on the way. */
  readonly hops: readonly string[]
  /** Whether they go on for ever. */
  readonly loops: boolean
}

/** The last answer after redirects, and where it came from. One that leaves the site is the last. */
export function follow(host: Host, site: Site, files: HostFiles, pathname: string): Followed {
  const hops: string[] = []
  let at = pathname
  let said = answer(host, site, files, at)
  while (said.location !== null) {
    const url = URL.canParse(said.location, site.origin + at)
      ? new URL(said.location, site.origin + at)
      : null
    if (url === null || url.origin !== site.origin)
      return { answer: said, pathname: at, hops: [...hops, said.location], loops: false }
    if (hops.length >= mostRedirects) return { answer: said, pathname: at, hops, loops: true }
    hops.push(url.pathname)
    at = url.pathname
    said = answer(host, site, files, at)
  }
  return { answer: said, pathname: at, hops, loops: false }
}

function decodePath(path: string): string | null {
  if (!path.includes('%')) return path
  try {
    const decoded = decodeURIComponent(path)
    // An encoded separator or NUL names no file; servers refuse it too.
    return /[\\\u0000]/.test(decoded) || decoded.split('/').includes('..') ? null : decoded
  } catch {
    return null
  }
}

/** A target as a `Location` holds it; what is encoded already stays. */
function encodeTarget(target: string): string {
  return encodeURI(wellFormed(target)).replace(/%25([\da-f]{2})/gi, '%$1')
}

function sent(host: Host, file: string, status: number, by: AnsweredBy, rule: string): Answer {
  const extension = extensionOf(file)
  // A file may be called "a.constructor".
  const own = Object.hasOwn(host.contentTypes, extension) ? host.contentTypes[extension] : undefined
  const contentType = own ?? contentTypeOf(file)
  return { status, file, contentType, location: null, by, rule }
}

function redirect(location: string, rule: string): Answer {
  return { status: 301, file: null, contentType: null, location, by: 'redirect', rule }
}

function refusal(status: number, by: AnsweredBy, rule: string): Answer {
  return { status, file: null, contentType: 'text/html', location: null, by, rule }
}
