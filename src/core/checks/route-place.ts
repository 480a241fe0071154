import { describeOrigin } from '../model/reading.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { CausePlace, Evidence } from './check.ts'

/** A route as the place of a finding: what was requested, what came back, and where the route is known from. */
export function routePlace({ path, from, status }: RouteAnswer, { site, folder }: Evidence): CausePlace {
  const known = 'file' in from ? { source: from } : {}
  const file = 'file' in from ? folder.path : `${folder.name} (${describeOrigin(from)})`
  return { file, offset: null, length: 0, request: site.origin + path, status, ...known }
}
