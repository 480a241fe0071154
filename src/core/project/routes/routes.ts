import type { Program } from 'acorn'
import type { Framework, RouterKind } from '../../frameworks/framework.ts'
import { fileRoutes } from '../../frameworks/page-files.ts'
import { placeAt } from '../../model/reading.ts'
import { isCatchAll, plainPattern, type SourceRoute } from '../../model/source-route.ts'
import { parseSource, SyntaxProblem } from '../../syntax/parse.ts'
import { scriptName, scriptOf } from '../sources/script-parts.ts'
import type { Sources } from '../sources/sources.ts'
import { holdsOwnRouter, ownRoutes } from './own-table.ts'
import { routeCalls } from './route-calls.ts'
import { holdsRouteMap, mappedRoutes } from './route-map.ts'
import { RouteTexts } from './route-texts.ts'
import { type LazyTable, routesIn } from './tables.ts'

/** React Router's own route file. */
export const routeFile = /(?:^|\/)routes\.[jt]s$/

/** Words of which any other module that tells of routes has one. */
export const routeWords = /path|Route|fullPaths/

const mayHold = /\bpath\s*[:=]|<Route\b/
const makesRoutes = /Router|<Route[s\s>]|\bRoutes\b|\broutes\b|useRoutes|RouteObject|RouteRecord/

/** More routes than this tell nobody more. */
const mostRoutes = 2_000

/**
 * The routes that the sources give pages to: a router's tables, generated trees, and files that are pages. Routes kept
 * behind a hash or in memory need nothing of a host, and are left out.
 */
export function readRoutes(
  sources: Sources,
  definition: Framework,
  router: RouterKind | null,
): SourceRoute[] {
  const files = (definition.pages ?? []).flatMap((pages) => fileRoutes(sources.files, pages))
  const tables =
    router === 'hash' || router === 'memory' ? [] : [...generatedTrees(sources), ...tablesOf(sources)]
  const seen = new Map<string, SourceRoute>()
  for (const route of [...tables, ...files]) {
    const pattern = plainPattern(route.pattern)
    if (!isCatchAll(route.pattern) && !seen.has(pattern)) seen.set(pattern, { ...route, pattern })
  }
  return [...seen.values()].slice(0, mostRoutes)
}

function tablesOf(sources: Sources): SourceRoute[] {
  const found: SourceRoute[] = []
  const lazy: LazyTable[] = []
  const bodies = new Map<string, Program>()
  const texts = new RouteTexts(sources)
  for (const [file, text] of sources.texts) {
    if (!mayHold.test(text) || !makesRoutes.test(text)) continue
    const body = texts.program(file)
    if (body) bodies.set(file, body)
  }
  const routesOf = (file: string, body: Program, prefix = ''): ReturnType<typeof routesIn> =>
    routesIn(file, body, (node) => texts.of(file, node), prefix)
  const read = (file: string, body: Program, prefix: string): void => {
    const { routes, lazy: more } = routesOf(file, body, prefix)
    found.push(...routes)
    lazy.push(...more)
  }
  // A table that another one loads is below it, whatever order the files come in.
  const loaded = new Set(
    [...bodies].flatMap(([file, body]) => routesOf(file, body).lazy.map(({ module }) => module)),
  )
  for (const [file, body] of bodies) if (!loaded.has(stemOf(file))) read(file, body, '')
  for (let next = lazy.shift(); next && found.length < mostRoutes; next = lazy.shift()) {
    const file = [...bodies.keys()].find((each) => stemOf(each) === next.module)
    const body = file === undefined ? undefined : bodies.get(file)
    if (file !== undefined && body) read(file, body, next.prefix)
  }
  for (const [file, text] of sources.texts) {
    const read =
      routeFile.test(file) && text.includes('@react-router/dev/routes')
        ? routeCalls
        : holdsRouteMap(text)
          ? mappedRoutes
          : holdsOwnRouter(text)
            ? ownRoutes
            : null
    const body = read && parse(file, text)
    if (read && body) found.push(...read(file, body))
  }
  return found
}

function stemOf(file: string): string {
  return file.replace(/\.\w+$/, '')
}

function parse(file: string, text: string): Program | null {
  try {
    return parseSource(scriptName(file), scriptOf(file, text))
  } catch (error) {
    if (error instanceof SyntaxProblem) return null
    throw error
  }
}

/** TanStack Router writes the paths of all routes into a type of its generated tree. */
function generatedTrees(sources: Sources): SourceRoute[] {
  const found: SourceRoute[] = []
  for (const [file, text] of sources.texts) {
    const union = /\bfullPaths:\s*((?:\|\s*)?'[^']*'(?:\s*\|\s*'[^']*')*)/.exec(text)
    if (!union) continue
    for (const match of (union[1] ?? '').matchAll(/'([^']*)'/g)) {
      const pattern = (match[1] ?? '')
        .replace(/\{-\$\w+\}/g, '')
        .replace(/\$(\w+)/g, ':$1')
        .replace(/\$$/, '*')
      found.push({ pattern, place: placeAt(file, text, union.index), kind: 'table' })
    }
  }
  return found
}
