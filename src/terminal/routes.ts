import { describeOrigin } from '../core/model/reading.ts'
import type { Report, RouteAnswer } from '../core/model/report.ts'
import { counted } from '../core/model/text.ts'
import { cut, cutMiddle, type Style } from './style.ts'

/** Words for what answered, in the order in which they are reported. */
const reported: readonly (readonly [string, string])[] = [
  ['file', 'by its file'],
  ['directory index', 'by its file'],
  ['extensionless name', 'by its file, .html left out'],
  ['fallback', 'by the fallback'],
  ['rule', 'by a rule'],
  ['proxy', 'by another server'],
  ['redirect', 'by a redirect'],
  ['not-found document', 'by the error document'],
]

/** `5 routes (1 by its file, 4 by the fallback)`. */
export function routeSummary({ routes }: Pick<Report, 'routes'>): string {
  const counts = new Map<string, number>()
  for (const route of routes) counts.set(answeredBy(route), (counts.get(answeredBy(route)) ?? 0) + 1)
  const parts = [...counts].map(([words, count]) => `${count} ${words}`)
  const how = parts.length === 1 && routes.every(({ status }) => status < 400) ? '' : ` (${parts.join(', ')})`
  return `${counted(routes.length, 'route')}${how}`
}

function answeredBy({ by }: RouteAnswer): string {
  return reported.find(([kind]) => kind === by)?.[1] ?? 'by nothing'
}

/** A line a route: path, status, the file sent, and the rule that answered. */
export function routeTable({ routes }: Pick<Report, 'routes'>, { colors, width }: Style): string[] {
  const longest = Math.min(44, width - 46, Math.max(...routes.map(({ path }) => path.length)))
  return [
    `  ${colors.bold('Routes')}`,
    ...routes.map((route) => {
      const path = cutMiddle(route.path, longest).padEnd(longest + 2)
      const status = String(route.status).padEnd(5)
      const file = cut(route.entryFile ?? '', 16).padEnd(18)
      const line = `    ${path}${route.status >= 400 ? colors.red(status) : status}${file}${answeredBy(route).padEnd(17)}`
      const room = width - 4 - longest - 2 - 5 - 18 - 17
      // Where there is little room, what answers says more than where a route is known from.
      return (room < 12 ? line : `${line}${colors.dim(cutMiddle(knownFrom(route), room))}`).trimEnd()
    }),
  ]
}

function knownFrom({ from, values }: RouteAnswer): string {
  const how = values === 'made up' ? ', value made up' : values ? `, value from ${values}` : ''
  return `${describeOrigin(from)}${how}`
}
