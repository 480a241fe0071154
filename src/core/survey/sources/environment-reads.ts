import type * as t from '@babel/types'
import { nameOf } from '../../model/folder.ts'
import type { Trace } from '../../model/hunt.ts'
import type { Place } from '../../model/reading.ts'
import { parseModule, SyntaxProblem } from '../config/modules.ts'
import { keepStatements, scriptName, scriptOf } from './script-parts.ts'
import type { Sources } from './sources.ts'
import { traceAround } from './trace.ts'
import { walkTree } from './walk-tree.ts'

/** A place where the source reads a variable. */
export interface EnvironmentRead {
  readonly name: string
  readonly place: Place
  /** The source copes with the variable's absence: a default, a test, optional access. */
  readonly guarded: boolean
}

/** The reads of a project, and what to look for in its output to learn what became of each. */
export interface EnvironmentReads {
  readonly reads: readonly EnvironmentRead[]
  readonly traces: readonly Trace[]
  /** Exported constants that hold a variable. How other files use them tells whether it is guarded. */
  readonly carried: readonly string[]
}

/** Names every build sets by itself. */
const builtIn = new Set(['MODE', 'BASE_URL', 'PROD', 'DEV', 'SSR', 'NODE_ENV', 'LEGACY'])

/** A constant that holds a variable: where it can be used, and which reads it stands for. */
interface Carrier {
  readonly constant: string
  readonly file: string
  readonly exported: boolean
  readonly read: number
}

/** Finds the variables the sources read, and follows the constants that carry them, across files too. */
export function readEnvironmentReads(sources: Sources, objects: readonly string[]): EnvironmentReads {
  const reads: EnvironmentRead[] = []
  const traces: Trace[] = []
  const carriers: Carrier[] = []
  const guardedLater = new Set<number>()
  const note = (use: Use, read: number, name: string): void => {
    if (use.guarded) guardedLater.add(read)
    else if (use.trace) traces.push({ ...use.trace, read, name })
  }
  const parse = parserOf(sources)
  for (const file of sources.texts.keys()) {
    const body = parse(file, (text) => objects.some((object) => text.includes(object)))
    if (!body) continue
    walkTree(body, (node, parents) => {
      for (const { name, at } of variablesRead(node, parents, objects)) {
        const read = reads.length
        const constant = constantOf(node, parents, name)
        const use = useOf(at, parents)
        const start = at.loc?.start
        const place = { file, line: start?.line ?? 1, column: (start?.column ?? 0) + 1 }
        reads.push({ name, place, guarded: use.guarded })
        note(use, read, name)
        if (constant) carriers.push({ ...constant, file, read })
      }
    })
  }
  followCarriers(sources, parse, carriers, (use, read) => note(use, read, reads[read]?.name ?? ''))
  return {
    reads: reads.map((read, index) => ({ ...read, guarded: read.guarded || guardedLater.has(index) })),
    traces: traces.filter(({ read }) => !guardedLater.has(read)),
    carried: carriers.flatMap(({ exported, constant }) => (exported ? [constant] : [])),
  }
}

/** Parses what is wanted of a source, and its imports when asked for; null when nothing is, or it can't be parsed. */
type Parse = (file: string, wanted: (text: string) => boolean, imports?: boolean) => t.Statement[] | null

/** Parses of each source the statements that are wanted. Most of a component is of no interest here. */
function parserOf(sources: Sources): Parse {
  return (file, wanted, imports = false) => {
    const text = sources.texts.get(file) ?? ''
    if (!wanted(text)) return null
    const script = scriptOf(file, text)
    if (script.trim() === '') return null
    const name = scriptName(file)
    // Under another name, any statement may use what is imported.
    if (imports && /^import\b[^'"]*\sas\s/m.test(script)) return tryParse(name, script, false)
    const likely = keepStatements(script, (piece) => (imports && piece.startsWith('import')) || wanted(piece))
    return (likely === script ? null : tryParse(name, likely, true)) ?? tryParse(name, script, false)
  }
}

function tryParse(name: string, script: string, whole: boolean): t.Statement[] | null {
  try {
    return parseModule(name, script, whole)
  } catch (error) {
    if (error instanceof SyntaxProblem) return null
    throw error
  }
}

/** `import.meta.env.X` or `process.env.X`, and the names taken out of it by destructuring. */
function variablesRead(
  node: t.Node,
  parents: readonly t.Node[],
  objects: readonly string[],
): { name: string; at: t.Node }[] {
  if (node.type === 'MemberExpression' || node.type === 'OptionalMemberExpression') {
    const name = isEnvironmentObject(node.object, objects) ? propertyName(node) : null
    return name === null || builtIn.has(name) ? [] : [{ name, at: node }]
  }
  const declarator = parents.at(-1)
  if (node.type !== 'ObjectPattern' || declarator?.type !== 'VariableDeclarator') return []
  if (!declarator.init || !isEnvironmentObject(declarator.init, objects)) return []
  return node.properties.flatMap((property) => {
    const name =
      property.type === 'ObjectProperty' && property.key.type === 'Identifier' ? property.key.name : null
    return name === null || builtIn.has(name) ? [] : [{ name, at: property }]
  })
}

function isEnvironmentObject(node: t.Node, objects: readonly string[]): boolean {
  if (node.type !== 'MemberExpression' && node.type !== 'OptionalMemberExpression') return false
  if (propertyName(node) !== 'env') return false
  const { object } = node
  if (object.type === 'MetaProperty') return objects.includes('import.meta.env')
  return object.type === 'Identifier' && object.name === 'process' && objects.includes('process.env')
}

function propertyName(node: t.MemberExpression | t.OptionalMemberExpression): string | null {
  if (!node.computed && node.property.type === 'Identifier') return node.property.name
  return node.property.type === 'StringLiteral' ? node.property.value : null
}

/** The constant a read is kept in: `const api = import.meta.env.X`, `const { X: api } = import.meta.env`. */
function constantOf(
  node: t.Node,
  parents: readonly t.Node[],
  name: string,
): Pick<Carrier, 'constant' | 'exported'> | null {
  const declaratorAt = parents.findLastIndex(({ type }) => type === 'VariableDeclarator')
  const declarator = parents[declaratorAt]
  if (declarator?.type !== 'VariableDeclarator') return null
  const exported = parents[declaratorAt - 2]?.type === 'ExportNamedDeclaration'
  if (node.type === 'ObjectPattern') {
    for (const property of node.properties) {
      if (property.type !== 'ObjectProperty' || property.key.type !== 'Identifier') continue
      if (property.key.name === name && property.value.type === 'Identifier') {
        return { constant: property.value.name, exported }
      }
    }
    return null
  }
  const between = parents.slice(declaratorAt + 1)
  const bare = between.every(({ type }) => type === 'TSAsExpression' || type === 'TSNonNullExpression')
  return bare && declarator.id.type === 'Identifier' ? { constant: declarator.id.name, exported } : null
}

interface Use {
  readonly guarded: boolean
  readonly trace: ReturnType<typeof traceAround>
}

/** How one expression is used: guarded against absence, and by which trace it can be known again. */
function useOf(node: t.Node, parents: readonly t.Node[]): Use {
  const guarded = isGuarded(node, parents)
  return { guarded, trace: guarded ? null : traceAround(node, parents) }
}

function isGuarded(node: t.Node, parents: readonly t.Node[]): boolean {
  // `const { X = 1 } = import.meta.env`
  if (node.type === 'ObjectProperty' && node.value.type === 'AssignmentPattern') return true
  let child = node
  for (const parent of parents.toReversed()) {
    switch (parent.type) {
      case 'LogicalExpression':
        return true
      case 'AssignmentPattern':
        return true
      case 'ConditionalExpression':
      case 'IfStatement':
      case 'WhileStatement':
        return parent.test === child
      case 'OptionalMemberExpression':
      case 'OptionalCallExpression':
        return true
      case 'UnaryExpression':
      case 'BinaryExpression':
        if (parent.type === 'BinaryExpression' && parent.operator === '+') return false
        if (parent.type === 'UnaryExpression' && parent.operator === 'typeof') return true
        // A comparison copes with any value; `!x` asks whether there is one.
        if (parent.type === 'BinaryExpression' && /^[!=]==?$/.test(parent.operator)) return true
        if (parent.type === 'UnaryExpression' && parent.operator === '!') return true
        break
      case 'TSAsExpression':
      case 'TSNonNullExpression':
      case 'ParenthesizedExpression':
      case 'MemberExpression':
        break
      default:
        return false
    }
    child = parent
  }
  return false
}

/** Looks at every use of the constants, in their own file and in files that import them by name. */
function followCarriers(
  sources: Sources,
  parse: Parse,
  carriers: readonly Carrier[],
  note: (use: Use, read: number) => void,
): void {
  if (carriers.length === 0) return
  const names = [...new Set(carriers.map(({ constant }) => constant))]
  for (const file of sources.texts.keys()) {
    const body = parse(file, (text) => names.some((name) => text.includes(name)), true)
    if (!body) continue
    const here = new Map<string, number>()
    for (const carrier of carriers) {
      const local = carrier.file === file ? carrier.constant : importedAs(body, carrier)
      if (local !== null) here.set(local, carrier.read)
    }
    if (here.size === 0) continue
    walkTree(body, (node, parents) => {
      const read = node.type === 'Identifier' ? here.get(node.name) : undefined
      if (read !== undefined && isUse(node, parents.at(-1))) note(useOf(node, parents), read)
    })
  }
}

function isUse(node: t.Node, parent: t.Node | undefined): boolean {
  if (!parent) return true
  if (parent.type === 'VariableDeclarator') return parent.init === node
  if (parent.type === 'ObjectProperty') return parent.value === node
  if (parent.type === 'MemberExpression') return parent.object === node || parent.computed
  return !/^(?:Import|Export)|Pattern$/.test(parent.type)
}

function importedAs(body: readonly t.Statement[], { exported, file, constant }: Carrier): string | null {
  if (!exported) return null
  const stem = stemOf(file)
  for (const statement of body) {
    if (statement.type !== 'ImportDeclaration' || stemOf(statement.source.value) !== stem) continue
    for (const specifier of statement.specifiers) {
      if (specifier.type !== 'ImportSpecifier' || specifier.imported.type !== 'Identifier') continue
      if (specifier.imported.name === constant) return specifier.local.name
    }
  }
  return null
}

/** The name a module goes by in imports: `config` for `src/config.ts` and `src/config/index.ts`. */
function stemOf(path: string): string {
  return nameOf(path.replace(/\.[cm]?[jt]sx?$/, '').replace(/\/index$/, ''))
}
