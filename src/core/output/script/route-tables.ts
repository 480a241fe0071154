import type { BuiltRoute, BuiltRoutes } from '../../model/facts.ts'
import { isCatchAll, joinRoute, plainPattern } from '../../model/source-route.ts'
import { keyName, type SyntaxNode, textOf } from '../../syntax/node.ts'
import { expressionAt } from '../../syntax/parse.ts'
import { type Mentions, WordList } from '../words.ts'

/** What only the hash modes of React Router, Vue Router and Angular's router leave in a build, by the word that each has. */
const hashModes: readonly (readonly [word: string, around: RegExp, before: number])[] = [
  ['mode:', /^[,{]mode:["'`]hash["'`]/, 1],
  ['are not supported in hash history', /^/, 0],
  ['location.host?', /^location\.host\?[^;{}]{0,80}location\.pathname\+location\.search/, 0],
  ['.hash', /^\.hash\s?\?\?\s?["'`]#["'`]/, 0],
]
const historyMode = /^[,{]mode:["'`]history["'`]/
/** Vue Router 3, which keeps paths behind a hash unless it is set otherwise, in whatever script. */
const hashUnlessSaid = /^case\s?["'`]abstract["'`]:/
/** Longer than what any of them matches; UTF-16 units. */
const widestMode = 160

/** `[{path:"/",component:a}`, and `x(Route,{path:"/",element:…})`: the beginning of what may be a table, up to the path. */
const tableBefore = /\[\{(?:[\w$]+:[^,{}[\]"'`]{0,40},){0,3}$/
const elementBefore = /\(\s{0,40}[\w$.]{1,200},(\{(?:[\w$]+:[^,{}[\]"'`]{0,40},){0,3})$/
/** What may stand before the path in such a beginning; UTF-16 units. */
const widestBefore = 500
/** TanStack Router's generated tree: `.update({id:"/sailings/$id",path:"/sailings/$id",getParentRoute:…})`. */
const treeEntry =
  /\.update\(\{id:(["'`])((?:(?!\1)[^\\]){1,200})\1,path:(["'`])(?:(?!\3)[^\\]){0,200}\3,getParentRoute:/g
/** Its routes made by hand, each with the one it is below: `b=f({getParentRoute:()=>a,path:"/harbours",…})`. */
const treeRoute =
  /(?<![\w$.])([\w$]+)=[\w$.]+\(\{getParentRoute:\(\)=>([\w$]+),path:(["'`])((?:(?!\3)[^\\]){0,200})\3/g
/** SvelteKit's list of pages: `{"/":[2],"/sailings/[id]":[3,[0]]}`. */
const pageList = /\{(?:["'`]\/[^"'`{}]{0,200}["'`]:\[~?\d[\d,~[\]]{0,40}\],?)+\}/y
const pageListStarts = ['{"/', "{'/", '{`/']

/** A table reaches no further, and more routes tell nobody more. */
const longestTable = 200_000
const mostRoutes = 500
/** Parsed in one script, in search of tables; UTF-16 units. */
const mostParsed = 2_000_000

/** Members of which a route has one; built code is full of objects with a path. */
const pageMembers = new Set([
  'element',
  'Component',
  'component',
  'components',
  'lazy',
  'loadChildren',
  'loadComponent',
])
const leadsOn = new Set(['redirectTo', 'redirect'])
const routePath = /^[\w~./:*?$()[\]@\\+|{}-]*$/

/** What tables and modes are found by. */
export const routeWords = [
  'path:',
  'abstract',
  'getParentRoute',
  ...hashModes.map(([word]) => word),
  ...pageListStarts,
]
const own = new WordList(routeWords)

/** The routes of the tables in a built script: those of React Router, Vue Router, Angular, TanStack Router and SvelteKit. */
export function routeTablesIn(code: string, mentions: Mentions = own.in(code)): BuiltRoutes | null {
  const router = modeOf(code, mentions)
  const routes = routesOf(code, mentions)
  return routes.length > 0 || router !== null ? { routes, router } : null
}

function modeOf(code: string, mentions: Mentions): BuiltRoutes['router'] {
  const isThere = (word: string, around: RegExp, before: number): boolean =>
    mentions.of(word).some((at) => around.test(code.slice(Math.max(0, at - before), at + widestMode)))
  if (hashModes.some((mode) => isThere(...mode))) return 'hash'
  if (isThere('mode:', historyMode, 1)) return 'history'
  return mentions
    .of('abstract')
    .some((at) => [6, 5].some((before) => hashUnlessSaid.test(code.slice(Math.max(0, at - before), at + 12))))
    ? 'hash unless said'
    : null
}

/** Whether the router of a build keeps its paths behind a hash. */
export function isBehindHash(facts: Iterable<{ readonly builtRoutes: BuiltRoutes | null }>): boolean {
  const said = new Set([...facts].map(({ builtRoutes }) => builtRoutes?.router ?? null))
  return said.has('hash') || (said.has('hash unless said') && !said.has('history'))
}

function routesOf(code: string, mentions: Mentions): BuiltRoute[] {
  const found = new Map<string, BuiltRoute>()
  const add = (pattern: string, offset: number, length: number): void => {
    const plain = plainPattern(pattern)
    if (isCatchAll(pattern) || found.size >= mostRoutes || found.has(plain)) return
    found.set(plain, { pattern: plain, offset, length })
  }
  readTables(code, mentions, add)
  if (mentions.has('getParentRoute')) {
    for (const match of code.matchAll(treeEntry)) add(ofTree(match[2] ?? ''), match.index, match[0].length)
    readTree(code, add)
  }
  for (const at of mentions.ofAll(pageListStarts)) {
    pageList.lastIndex = at
    const [list = ''] = pageList.exec(code) ?? []
    for (const [whole, , path = ''] of list.matchAll(/(["'`])(\/[^"'`]*)\1:\[/g))
      add(ofFiles(path), at + list.indexOf(whole), path.length + 2)
  }
  return [...found.values()]
}

type Add = (pattern: string, offset: number, length: number) => void

function readTables(code: string, mentions: Mentions, add: Add): void {
  let end = 0
  let parsed = 0
  for (const start of tableStarts(code, mentions)) {
    if (parsed > mostParsed) break
    // What lies inside a table has been read with it.
    const root = start < end ? null : (expressionAt(code, start, longestTable) as SyntaxNode | null)
    if (start >= end) parsed += root ? root.end : Math.min(longestTable, code.length - start)
    if (!root) continue
    const reader = new TableReader(start, add)
    if (root.type === 'ArrayExpression') reader.readList(root, '')
    else reader.readRoute(root, '')
    if (reader.count > 0) end = start + root.end
  }
}

function tableStarts(code: string, mentions: Mentions): number[] {
  const starts = mentions.of('path:').flatMap((at) => {
    if (!/["'`]/.test(code.charAt(at + 5))) return []
    const before = code.slice(Math.max(0, at - widestBefore), at)
    const table = tableBefore.exec(before)
    if (table) return [at - before.length + table.index]
    const object = elementBefore.exec(before)?.[1]
    return object === undefined ? [] : [at - object.length]
  })
  return [...new Set(starts)].sort((a, b) => a - b)
}

/** Reads one table, in objects or in what JSX becomes. */
class TableReader {
  count = 0
  readonly #start: number
  readonly #add: Add

  constructor(start: number, add: Add) {
    this.#start = start
    this.#add = add
  }

  readList(node: SyntaxNode | undefined, above: string): void {
    const elements = node?.type === 'ArrayExpression' ? node.elements : node ? [node] : []
    for (const element of elements) {
      const options = element?.type === 'CallExpression' ? element.arguments[1] : element
      if (options) this.readRoute(options as SyntaxNode, above)
    }
  }

  readRoute(node: SyntaxNode, above: string): void {
    const members = membersOf(node)
    const path = textOf(members.get('path'))
    if (members.size === 0 || (path !== null && !routePath.test(path))) return
    const whole = path?.startsWith('/') ? joinRoute(path) : joinRoute(above, path ?? '')
    const children = members.get('children')
    const before = this.count
    if (children?.type === 'ArrayExpression' || children?.type === 'CallExpression')
      this.readList(children, whole)
    const isPage = [...members.keys()].some((name) => pageMembers.has(name))
    const isLayout = this.count > before || members.has('loadChildren')
    if (path === null || isLayout || !isPage || [...leadsOn].some((name) => members.has(name))) return
    const at = members.get('path') as SyntaxNode
    this.count++
    this.#add(whole, this.#start + at.start, at.end - at.start)
  }
}

function membersOf(node: SyntaxNode): Map<string, SyntaxNode> {
  const found = new Map<string, SyntaxNode>()
  for (const property of node.type === 'ObjectExpression' ? node.properties : []) {
    const name = keyName(property)
    if (property.type === 'Property' && name !== null) found.set(name, property.value)
  }
  return found
}

/** Deeper than any tree of routes. */
const deepest = 20

function readTree(code: string, add: Add): void {
  const made = new Map<string, { parent: string; path: string }>()
  const matches = [...code.matchAll(treeRoute)]
  for (const [, name = '', parent = '', , path = ''] of matches) made.set(name, { parent, path })
  for (const match of matches) {
    const steps: string[] = []
    for (let at = made.get(match[1] ?? ''); at && steps.length < deepest; at = made.get(at.parent))
      steps.unshift(at.path)
    add(ofTree(steps.join('/')), match.index, match[0].length)
  }
}

/** `/_layout/sailings/$id/`: what begins with a line is no step of the path, and `(group)` is none. */
function ofTree(id: string): string {
  const steps = id.split('/').filter((step) => !/^_|^\(.*\)$/.test(step))
  return joinRoute(...steps.map((step) => (step === '$' ? '*' : step.replace(/^\$/, ':').replace(/_$/, ''))))
}

/** `/(app)/sailings/[id]`, `[[lang]]`, `[...rest]`. */
function ofFiles(path: string): string {
  const steps = path.split('/').filter((step) => !/^\(.*\)$/.test(step))
  return joinRoute(
    ...steps.map((step) =>
      step
        .replace(/^\[\.\.\..*\]$/, '*')
        .replace(/^\[\[(\w+)(?:=\w+)?\]\]$/, ':$1?')
        .replace(/^\[(\w+)(?:=\w+)?\]$/, ':$1'),
    ),
  )
}
