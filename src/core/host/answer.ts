import { contentTypeOf } from '../model/content-type.ts'
import type { Site } from '../model/site.ts'
import type { Answer, AnsweredBy, Host, HostFiles } from './host.ts'

/** Bounds how often a redirect is followed, as browsers do; more is a loop. */
const mostRedirects = 20

/**
 * What the host answers to a GET of `pathname` (percent-encoded, as a browser sends it) at this site.
 * A pure function of the files and the host's rules.
 */
export function answer(host: Host, site: Site, files: HostFiles, pathname: string): Answer {
  if (!pathname.startsWith(site.base)) {
    if (`${pathname}/` === site.base) return redirect(site.base, 'the base path, with its last slash added')
    return refusal(404, 'outside', 'nothing: the path lies outside the site')
  }
  const path = decodePath(pathname.slice(site.base.length))
  if (path === null) return refusal(400, 'malformed', 'nothing: the path is not well encoded')
  return answerWithin(host, files, path, pathname)
}

function answerWithin(host: Host, files: HostFiles, path: string, pathname: string): Answer {
  const kept = path.split('/').some((step) => host.withheld.some((start) => step.startsWith(start)))
  if (kept) return refusal(404, 'withheld', 'nothing: this host keeps such names back')
  if (path === '' || path.endsWith('/')) {
    const index = path + host.directoryIndex
    if (files.has(index))
      return sent(index, 200, 'directory index', path === '' ? 'the entry document' : 'a directory index')
  } else {
    if (files.has(path)) return sent(path, 200, 'file', 'a file')
    if (host.extensionless && files.has(`${path}.html`))
      return sent(`${path}.html`, 200, 'extensionless name', 'a file, .html left out')
    if (files.isDirectory(path)) return redirect(`${pathname}/`, 'a directory, with its last slash added')
  }
  const document = host.fallback?.documents.find((each) => files.has(each))
  if (host.fallback && document !== undefined) {
    return sent(document, host.fallback.status, 'fallback', 'the fallback for unknown paths')
  }
  return refusal(404, 'nothing', 'nothing: there is no such file')
}

/** The last answer after redirects, and where it came from. A loop ends with the redirect itself. */
export function follow(
  host: Host,
  site: Site,
  files: HostFiles,
  pathname: string,
): { answer: Answer; pathname: string } {
  let at = pathname
  let said = answer(host, site, files, at)
  for (let hop = 0; said.location !== null && hop < mostRedirects; hop++) {
    at = said.location
    said = answer(host, site, files, at)
  }
  return { answer: said, pathname: at }
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

function sent(file: string, status: number, by: AnsweredBy, rule: string): Answer {
  return { status, file, contentType: contentTypeOf(file), location: null, by, rule }
}

function redirect(location: string, rule: string): Answer {
  return { status: 301, file: null, contentType: null, location, by: 'redirect', rule }
}

function refusal(status: number, by: AnsweredBy, rule: string): Answer {
  return { status, file: null, contentType: 'text/html', location: null, by, rule }
}
