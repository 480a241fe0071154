import { UsageError } from './errors.ts'

/** Where a folder will be served. */
export interface Site {
  /** The whole address, ending in a slash: `https://skerryline.example/crossings/`. */
  readonly address: string
  /** `https://skerryline.example` */
  readonly origin: string
  /** The base path, with a slash at both ends: `/crossings/`. */
  readonly base: string
  /** False when nobody gave an address and one was assumed. */
  readonly given: boolean
  /** The address under which findings are known, where the same build is looked at as if it stood elsewhere. */
  readonly knownAs?: string
}

/** A base path as the URL standard normalises it, with a slash at both ends; the top, where it is no path of one site. */
export function normaliseBase(path: string): string {
  const written = path.startsWith('/') ? path : `/${path}`
  const { pathname } = URL.canParse(written, 'http://site.invalid')
    ? new URL(written, 'http://site.invalid')
    : { pathname: '/' }
  return pathname.endsWith('/') ? pathname : `${pathname}/`
}

/**
 * Reads a site address. A missing last slash is added: a site is a folder. Query and fragment are dropped.
 * @throws {UsageError} when the text is no absolute http or https URL.
 */
export function parseSite(text: string): Site {
  const url = URL.canParse(text) ? new URL(text) : null
  if (!url || (url.protocol !== 'https:' && url.protocol !== 'http:')) {
    throw new UsageError(
      `The site address "${text}" is no http or https URL. Write it whole, as in https://skerryline.example/crossings/.`,
    )
  }
  const base = normaliseBase(url.pathname)
  return { address: url.origin + base, origin: url.origin, base, given: true }
}

/** The address used when none is given: the base path the project expects, on a reserved name that can't exist. */
export function assumedSite(base: string): Site {
  const path = normaliseBase(base)
  return { address: `https://site.invalid${path}`, origin: 'https://site.invalid', base: path, given: false }
}
