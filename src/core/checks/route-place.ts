import { describeOrigin } from '../model/reading.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { CausePlace, Evidence } from './check.ts'

/** A route as the place of a finding: what was requested, what came back, and where the route is known from. */
export function routePlace(route: RouteAnswer, evidence: Evidence): CausePlace {
  const { path, from, status } = route
  const { site, folder } = evidence
  const built = placeInBuild(route, evidence)
  if (built) return { ...built, request: site.origin + path, status }
  const known = 'file' in from ? { source: from } : {}
  const file = 'file' in from ? folder.path : `${folder.name} (${describeOrigin(from)})`
  return { file, offset: null, length: 0, request: site.origin + path, status, ...known }
}

/** Where a script of the build has the route, when that is where it is known from. */
function placeInBuild(
  { path, from, pattern }: RouteAnswer,
  { facts, site }: Evidence,
): Pick<CausePlace, 'file' | 'offset' | 'length'> | null {
  const file = 'file' in from ? facts.find((each) => each.path === from.file) : undefined
  const wanted = pattern ?? `/${path.slice(site.base.length)}`
  const route = file?.builtRoutes?.routes.find((each) => each.pattern === wanted)
  return file && route ? { file: file.path, offset: route.offset, length: route.length } : null
}
