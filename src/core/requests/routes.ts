import { answer } from '../host/answer.ts'
import type { Host } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import { extensionOf } from '../model/folder.ts'
import type { Origin } from '../model/reading.ts'
import type { Site } from '../model/site.ts'
import { escapePattern, safeDecode } from '../model/text.ts'
import { encodePath, pageAddress } from './addresses.ts'
import type { FolderIndex } from './folder-index.ts'
import type { Link } from './links.ts'

/** A route to request, and where it is known from. */
export interface Route {
  /** The path as a browser sends it, base path and all. */
  readonly path: string
  readonly from: Origin
  /** The route's own form, when it has parameters. */
  readonly pattern?: string
  /** Where the values of its parameters come from. */
  readonly values?: 'a link' | 'the configuration' | 'made up'
}

/** A route of the sources, as the survey read it. */
export interface KnownRoute {
  readonly pattern: string
  readonly place: Origin
  readonly kind: 'table' | 'file'
}

/** Where routes are known from. */
export interface RouteSources {
  readonly named: readonly Route[]
  readonly known: readonly KnownRoute[]
  /** Values for parameters, by name. */
  readonly samples: Readonly<Record<string, string>>
}

/** A page that answers errors is reached by its status, not by its path; a shell is no page of its own. */
const noRoute = /(?:^|\/)(?:404|500|200|_shell|_not-found|__spa-fallback)(?:\.html|\/index\.html)$/

/** Whether a page is one that no path is for. */
export function isShell(path: string): boolean {
  return noRoute.test(path)
}

/**
 * The routes to request: the site itself, every page of the folder, what pages and sitemaps lead to that is no file, the
 * routes of the sources, and those a person named.
 */
export function routesOf(
  host: Host,
  site: Site,
  facts: readonly FileFacts[],
  index: FolderIndex,
  links: ReadonlyMap<string, Link>,
  { named, known, samples }: RouteSources,
): Route[] {
  const routes = new Map<string, Route>()
  const add = (route: Route): void => {
    if (!routes.has(route.path)) routes.set(route.path, route)
  }
  add({ path: site.base, from: { by: 'the site address' } })
  for (const { path, kind } of facts) {
    if (kind !== 'page' || isShell(path)) continue
    add({ path: site.base + encodePath(pageAddress(path)), from: { file: path, line: 1, column: 1 } })
  }
  for (const { path, from } of named) add({ path: pathAt(site, path), from })
  for (const route of known) {
    const instance = instanceOf(route, site, links, samples)
    if (instance) add(instance)
  }
  for (const { pathname, from } of links.values()) {
    const said = answer(host, site, index, pathname)
    const isPlain = said.by === 'file' || said.by === 'directory index' || said.by === 'extensionless name'
    if (isPlain || said.by === 'redirect' || extensionOf(pathname) !== '') continue
    add({ path: pathname, from: { file: from, line: 1, column: 1 } })
  }
  return [...routes.values()]
}

/** A route with values for its parameters: from a link, else as configured, else made up where any value will do. */
function instanceOf(
  { pattern, place, kind }: KnownRoute,
  site: Site,
  links: ReadonlyMap<string, Link>,
  samples: Readonly<Record<string, string>>,
): Route | null {
  const path = pattern.slice(1)
  if (!path.includes(':')) return { path: site.base + encodePath(path), from: place }
  const form = formOf(pattern)
  for (const pathname of links.keys()) {
    if (form.test(`/${safeDecode(pathname.slice(site.base.length))}`)) {
      return { path: pathname, from: place, pattern, values: 'a link' }
    }
  }
  const names = [...path.matchAll(/:(\w+)/g)].map((match) => match[1] ?? '')
  const configured = names.every((name) => samples[name] !== undefined)
  // Of a file with parameters, only the pages exist that the build made.
  if (!configured && kind === 'file') return null
  const filled = path.replace(
    /:(\w+)/g,
    (_, name: string) => samples[name] ?? (/id$/i.test(name) ? '1' : 'sample'),
  )
  return {
    path: site.base + encodePath(filled),
    from: place,
    pattern,
    values: configured ? 'the configuration' : 'made up',
  }
}

/** Parameters of one step; more are none that a person wrote, and their pattern could run for ever. */
const mostParameters = 4

/** What a path of this route looks like. */
export function formOf(pattern: string): RegExp {
  const steps = pattern.split('/').map((step) => {
    const parameters = step.split(/:\w+/).length - 1
    return parameters > mostParameters ? '[^/]+' : escapePattern(step).replace(/(?::\w+)+/g, '[^/]+')
  })
  return new RegExp(`^${steps.join('/')}/?$`)
}

/** A route as a person writes it, with or without the base path, as the browser sends it. */
function pathAt(site: Site, path: string): string {
  const whole = path.startsWith(site.base) ? path : site.base + path.replace(/^\/+/, '')
  return new URL(whole, site.origin).pathname
}
