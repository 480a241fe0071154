import type { Report, RouteAnswer } from '../../model/report.ts'

/** How a route is answered, as a picture tells it apart. */
export type Answered = 'file' | 'fallback' | 'redirect' | 'failing'

/** A step of a path, with the route that ends there, where one does. */
export interface RouteNode {
  readonly step: string
  readonly route: RouteAnswer | null
  readonly children: readonly RouteNode[]
  /** Routes beside it that are answered alike and are not drawn one by one. */
  readonly alike: number
}

/** Children of one step that are answered alike and drawn one by one. */
const mostAlike = 4
/** Children of one step, whatever answers them. */
const mostChildren = 14

/** The routes of a site as a tree of the steps of their paths; of many that are answered alike a few are drawn, and the rest counted. */
export function routesTree(routes: readonly Report['routes'][number][], base: string): RouteNode {
  const root: Growing = { step: base, route: null, children: new Map() }
  for (const route of routes) {
    const below = route.path.startsWith(base) ? route.path.slice(base.length) : route.path
    let at = root
    for (const step of below.split('/').filter((each) => each !== '')) {
      let next = at.children.get(step)
      if (!next) {
        next = { step, route: null, children: new Map() }
        at.children.set(step, next)
      }
      at = next
    }
    at.route ??= route
  }
  return grown(root)
}

interface Growing {
  readonly step: string
  route: RouteAnswer | null
  readonly children: Map<string, Growing>
}

function grown({ step, route, children }: Growing): RouteNode {
  return { step, route, children: drawn([...children.values()].map(grown)), alike: 0 }
}

/** Those that fail and those with routes below them first; then a few of each kind. */
function drawn(children: readonly RouteNode[]): RouteNode[] {
  const groups = new Map<string, RouteNode[]>()
  for (const child of children) {
    const key =
      child.children.length > 0 ? `below ${weightOf(child)}` : child.route ? answeredOf(child.route) : 'step'
    groups.set(key, [...(groups.get(key) ?? []), child])
  }
  const kept: RouteNode[] = []
  for (const [, group] of [...groups].sort(([a], [b]) => orderOf(a) - orderOf(b))) {
    const room = Math.max(1, Math.min(mostAlike, mostChildren - kept.length))
    const [shown, rest] = [group.slice(0, room), group.slice(room)]
    kept.push(...shown)
    const first = rest[0]
    if (first)
      kept.push({
        ...first,
        step: '',
        children: [],
        alike: rest.reduce((sum, each) => sum + countOf(each), 0),
      })
  }
  return kept
}

function orderOf(key: string): number {
  return key === 'failing' ? 0 : key.startsWith('below') ? 1 : 2
}

/** What is below a step matters where something there fails. */
function weightOf({ children }: RouteNode): Answered | 'fine' {
  const fails = (node: RouteNode): boolean =>
    (node.route !== null && answeredOf(node.route) === 'failing') || node.children.some(fails)
  return children.some(fails) ? 'failing' : 'fine'
}

function countOf({ route, children, alike }: RouteNode): number {
  return (route ? 1 : 0) + alike + children.reduce((sum, child) => sum + countOf(child), 0)
}

/** What answers a route, in the words of the picture's key. */
export function answeredOf({ status, loops, redirects, by }: RouteAnswer): Answered {
  if (status >= 400 || loops) return 'failing'
  if (redirects.length > 0) return 'redirect'
  return by === 'fallback' || by === 'not-found document' ? 'fallback' : 'file'
}
