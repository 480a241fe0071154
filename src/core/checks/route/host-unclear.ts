import { unclearOf } from '../../host/server-host.ts'
import { describeOrigin } from '../../model/reading.ts'
import { counted, listed } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { routePlace } from '../route-place.ts'
import { answerTo } from '../server-rules.ts'

/** More of them are counted. */
const mostNamed = 5

/** The model of the host is not the whole of what the server's configuration says. */
export const hostUnclear = defineCheck({
  code: 'route/host-unclear',
  severity: 'caution',
  title: "A part of the server's configuration is not followed",
  keywords: ['nginx', 'directive', 'server configuration', 'not understood'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { host, site, requested } = evidence
  if (!host.server) return []
  const unclear = unclearOf(host.server, site)
  const [first] = unclear
  if (!first) return []
  const routes = requested.routes.filter(({ path }) => answerTo(path, evidence).unclear !== undefined)
  const files = requested.requests.filter(({ answer }) => answer.unclear !== undefined)
  const named = unclear.slice(0, mostNamed).map(({ what, place }) => `${what} (${describeOrigin(place)})`)
  const more =
    unclear.length > named.length ? ` and ${counted(unclear.length - named.length, 'other line')}` : ''
  const touched = [
    ...(routes.length > 0 ? [counted(routes.length, 'route')] : []),
    ...(files.length > 0 ? [counted(files.length, 'file request')] : []),
  ]
  const isTouched = touched.length > 0
  return [
    {
      key: 'directives',
      severity: isTouched ? 'caution' : 'note',
      impact: isTouched
        ? `Unknown: ${listed(touched)} may be answered otherwise than is said here.`
        : 'Nothing that is requested here depends on it.',
      cause: `Not followed: ${listed(named)}${more}.`,
      places: routes.map((route) => routePlace(route, evidence)),
      source: first.place,
      fix: [
        `Ask the server itself for ${routes[0]?.path ?? site.base}, and compare what it sends.`,
        'Where it answers otherwise, describe it in a host file, and check with that one.',
      ],
    },
  ]
}
