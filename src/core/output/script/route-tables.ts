import type { BuiltRoute, BuiltRoutes } from '../../model/facts.ts'
import { isCatchAll, joinRoute, plainPattern } from '../../model/source-route.ts'
import { keyName, type SyntaxNode, textOf } from '../../syntax/node.ts'
import { expressionAt } from '../../syntax/parse.ts'

/** What only the hash modes of React Router, Vue Router and Angular's router leave in a build. */
const hashMode =
  /[,{]mode:["'`]hash["'`]|are not supported in hash history|location\.host\?[^;{}]{0,80}location\.pathname\+location\.search|\.hash\s?\?\?\s?["'`]#["'`]/

/** Vue Router 3, which keeps paths behind a hash unless it is set otherwise, in whatever script. */
const hashUnlessSaid = /case\s?["'`]abstract["'`]:/
const historyMode = /[,{]mode:["'`]history["'`]/
const modeWords = ['in hash history', 'location.host?', '.hash', 'abstract', 'mode:"h', "mode:'h", 'mode:`h']

/** `[{path:"/",component:a}`, and `x(Route,{path:"/",element:…})`: the beginning of what may be a table. */
const tableStart = /\[\{(?:[\w$]+:[^,{}[\]"'`]{0,40},){0,3}path:["'`]/g
const elementStart = /\(\s*[\w$.]+,(\{(?:[\w$]+:[^,{}[\]"'`]{0,40},){0,3}path:["'`])/g
/** TanStack Router's generated tree: `.update({id:"/sailings/$id",path:"/sailings/$id",getParentRoute:…})`. */
const treeEntry =
  /\.update\(\{id:(["'`])((?:(?!\1)[^\\]){1,200})\1,path:(["'`])(?:(?!\3)[^\\]){0,200}\3,getParentRoute:/g
/** Its routes made by hand, each with the one it is below: `b=f({getParentRoute:()=>a,path:"/harbours",…})`. */
const treeRoute =
  /(?<![\w$.])([\w$]+)=[\w$.]+\(\{getParentRoute:\(\)=>([\w$]+),path:(["'`])((?:(?!\3)[^\\]){0,200})\3/g
/** SvelteKit's list of pages: `{"/":[2],"/sailings/[id]":[3,[0]]}`. */
const pageList = /\{(?:["'`]\/[^"'`{}]{0,200}["'`]:\[~?\d[\d,~[\]]{0,40}\],?)+\}/g

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

/** The routes of the tables in a built script: those of React Router, Vue Router, Angular, TanStack Router and SvelteKit. */
export function routeTablesIn(code: string): BuiltRoutes | null {
  const router = modeWords.some((words) => code.includes(words)) ? modeOf(code) : null
  const routes = code.includes('path:') || code.includes('"/":[') ? routesOf(code) : []
  return routes.length > 0 || router !== null ? { routes, router } : null
}

function modeOf(code: string): BuiltRoutes['router'] {
  if (hashMode.test(code)) return 'hash'
  if (historyMode.test(code)) return 'history'
  return hashUnlessSaid.test(code) ? 'hash unless said' : null
}

/** Whether the router of a build keeps its paths behind a hash. */
export function isBehindHash(facts: Iterable<{ readonly builtRoutes: BuiltRoutes | null }>): boolean {
  const said = new Set([...facts].map(({ builtRoutes }) => builtRoutes?.router ?? null))
  return said.has('hash') || (said.has('hash unless said') && !said.has('history'))
}

function routesOf(code: string): BuiltRoute[] {
  const found = new Map<string, BuiltRoute>()
  const add = (pattern: string, offset: number, length: number): void => {
    const plain = plainPattern(pattern)
    if (isCatchAll(pattern) || found.size >= mostRoutes || found.has(plain)) return
    found.set(plain, { pattern: plain, offset, length })
  }
  readTables(code, add)
  // Looked for by its words first: a pattern that begins with a name is tried at every character.
  if (code.includes('getParentRoute')) {
    for (const match of code.matchAll(treeEntry)) add(ofTree(match[2] ?? ''), match.index, match[0].length)
    readTree(code, add)
  }
  for (const match of code.matchAll(pageList))
    for (const [whole, , path = ''] of match[0].matchAll(/(["'`])(\/[^"'`]*)\1:\[/g))
      add(ofFiles(path), match.index + match[0].indexOf(whole), path.length + 2)
  return [...found.values()]
}

type Add = (pattern: string, offset: number, length: number) => void

function readTables(code: string, add: Add): void {
  const starts = [
    ...[...code.matchAll(tableStart)].map(({ index }) => index),
    ...[...code.matchAll(elementStart)].map(
      (match) => match.index + match[0].length - (match[1] ?? '').length,
    ),
  ]
  let end = 0
  let parsed = 0
  for (const start of starts.sort((a, b) => a - b)) {
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
