import type { FileFacts } from '../model/facts.ts'
import type { Site } from '../model/site.ts'
import { encodePath, pageAddress } from './addresses.ts'
import type { Route } from './ask.ts'

/** A page that answers errors is reached by its status, not by its path. */
const errorPage = /(?:^|\/)(?:404|500|200)(?:\.html|\/index\.html)$/

/** The routes to ask for: the site itself, every page of the folder, and those a person named. */
export function routesOf(site: Site, facts: readonly FileFacts[], named: readonly Route[]): Route[] {
  const routes = new Map<string, Route>()
  const add = (route: Route): void => {
    if (!routes.has(route.path)) routes.set(route.path, route)
  }
  add({ path: site.base, from: { by: 'the site address' } })
  for (const { path, kind } of facts) {
    if (kind !== 'page' || errorPage.test(path)) continue
    add({ path: site.base + encodePath(pageAddress(path)), from: { file: path, line: 1, column: 1 } })
  }
  for (const { path, from } of named) add({ path: pathAt(site, path), from })
  return [...routes.values()]
}

/** A route as a person writes it, with or without the base path, as the browser sends it. */
function pathAt(site: Site, path: string): string {
  const whole = path.startsWith(site.base) ? path : site.base + path.replace(/^\/+/, '')
  return new URL(whole, site.origin).pathname
}
