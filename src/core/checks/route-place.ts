import { describeOrigin } from '../model/reading.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Evidence, Showing } from './check.ts'

/** A route as the place of a finding: what was asked, what came back, and where the route is known from. */
export function routeShowing({ path, from, status }: RouteAnswer, { site, folder }: Evidence): Showing {
  const known = 'file' in from ? { source: from } : {}
  const file = 'file' in from ? folder.path : `${folder.name} (${describeOrigin(from)})`
  return { file, offset: null, length: 0, request: site.origin + path, status, ...known }
}
