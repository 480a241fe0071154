import type { Program } from 'acorn'
import { nameOf } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import type { Trace } from '../../model/search.ts'
import { escapePattern } from '../../model/text.ts'
import { isTyped, keyName, outward, type SyntaxNode, walkTree } from '../../syntax/node.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { sourceTree } from '../../syntax/tree.ts'
import { type AccessRules, accessesOf, isUse, type LocalNames, localNames } from './environment-access.ts'
import { isGuarded, standInFor, thrownFor } from './guard.ts'
import type { PassedRead } from './passed-reads.ts'
import { keepStatements, markupExpressions, scriptName, scriptOf } from './script-parts.ts'
import type { Sources } from './sources.ts'
import { traceAround } from './trace.ts'

/** A place where the source reads a variable. */
export interface EnvironmentRead {
  readonly name: string
  readonly place: Place
  /** The source copes with the variable's absence: a default, a test, optional access. */
  readonly guarded: boolean
  /** The configuration passes it on to the browser, whatever its name. */
  readonly passedOn?: true
  /** No source has the name that the build puts it in place of. */
  readonly unread?: true
  /** It is put into a longer text: where it was missing, the build shows `undefined` there. */
  readonly inText?: true
  /** It is read by a name that the code puts together or hands on; this is the text of it that the source holds. */
  readonly given?: string
  /** The text that stands in for it where it is missing. */
  readonly standIn?: string | undefined
}

/** The reads of a project, and what to look for in its output to learn what became of each. */
export interface EnvironmentReads {
  readonly reads: readonly EnvironmentRead[]
  readonly traces: readonly Trace[]
  /** Exported constants that hold a variable. How other files use them tells whether it is guarded. */
  readonly carried: readonly string[]
  /** Where variables are read by a name that only the running code knows, or all of them passed on. */
  readonly computed: readonly Place[]
}

/** A constant that holds a variable: where it can be used, and which reads it stands for. */
interface Carrier {
  readonly constant: string
  readonly file: string
  readonly exported: boolean
  readonly read: number
  /** The build puts it in place of this name, in every source. */
  readonly everywhere?: true
}

/**
 * Finds the variables the sources read, and follows the constants that carry them, across files too.
 * @param passed those that the configuration passes on
 */
export function readEnvironmentReads(
  sources: Sources,
  own: AccessRules,
  passed: readonly PassedRead[] = [],
): EnvironmentReads {
  const rules = withReplaced(own, passed)
  const reads: EnvironmentRead[] = []
  const traces: Trace[] = []
  const carriers: Carrier[] = []
  const computed: Place[] = []
  const guardedLater = new Set<number>()
  const inText = new Set<number>()
  const standIns = new Map<number, string>()
  const note = (use: Use, read: number, name: string): void => {
    if (use.standIn !== null && !standIns.has(read)) standIns.set(read, use.standIn)
    if (use.guarded) guardedLater.add(read)
    else if (use.trace) {
      traces.push({ ...use.trace, read, name })
      if (use.trace.kind === 'template') inText.add(read)
    }
  }
  for (const { name, place, guarded, replaced, trace, isDefault, standIn } of passed) {
    const read = reads.length
    if (standIn !== undefined) standIns.set(read, standIn)
    const unread = replaced !== null && !isNamed(replaced, place.file, sources)
    reads.push({
      name,
      place,
      guarded,
      ...(isDefault ? {} : { passedOn: true as const }),
      ...(unread ? { unread: true as const } : {}),
    })
    if (trace && !guarded) traces.push({ ...trace, read, name })
    if (replaced !== null && /^[\w$]+$/.test(replaced))
      carriers.push({ constant: replaced, file: place.file, exported: true, read, everywhere: true })
  }
  const words = wordsOf(rules)
  const wanted = (text: string): boolean => words.some((word) => text.includes(word))
  const named = namesObjects(rules)
  const parse = parserOf(sources, named)
  const readIn = (file: string, program: Program, local: LocalNames): void =>
    walkTree(program, (node) => {
      for (const { name, at, fromWhole, serverOnly } of accessesOf(node, rules, local)) {
        const place = placeIn(file)(at)
        if (name === null) {
          computed.push(place)
          continue
        }
        const read = reads.length
        const constant = constantOf(node, name)
        const use = useOf(at)
        const isData = rules.dataFiles?.test(file) === true
        reads.push({ name, place, guarded: use.guarded, ...(isData ? { passedOn: true as const } : {}) })
        if (serverOnly) continue
        note(use, read, name)
        if (fromWhole && !use.guarded) traces.push({ kind: 'object', read, name })
        if (constant) carriers.push({ ...constant, file, read })
      }
    })
  for (const [file, text] of sources.texts) {
    if (!wanted(text)) continue
    const program = parse(file, wanted)
    const local = program ? localNames(program, rules) : noNames
    if (program) readIn(file, program, local)
    const known = [...local.variables.keys(), ...local.objects]
    for (const expression of markupExpressions(file, text)) {
      if (!wanted(expression) && !known.some((name) => expression.includes(name))) continue
      const piece = tryParse(scriptName(file), expression, true)
      if (piece) readIn(file, piece, local)
    }
  }
  followCarriers(sources, parse, carriers, (use, read) => note(use, read, reads[read]?.name ?? ''))
  // What the configuration puts in its place copes for every source that reads it.
  const coped = new Set(
    passed.flatMap(({ name, guarded, replaced }) =>
      guarded && replaced?.endsWith(`.env.${name}`) ? [name] : [],
    ),
  )
  for (const [index, { name }] of reads.entries()) if (coped.has(name)) guardedLater.add(index)
  return {
    reads: reads.map((read, index) => ({
      ...read,
      guarded: read.guarded || guardedLater.has(index),
      ...(inText.has(index) ? { inText: true as const } : {}),
      ...(standIns.has(index) ? { standIn: standIns.get(index) } : {}),
    })),
    traces: traces.filter(({ read }) => !guardedLater.has(read)),
    carried: carriers.flatMap(({ exported, constant }) => (exported ? [constant] : [])),
    computed,
  }
}

/** Whether any source beside the configuration has the last part of a name, however it reads it. */
function isNamed(replaced: string, configuration: string, { texts, left }: Sources): boolean {
  const word = /[\w$]{1,200}$/.exec(replaced)?.[0]
  if (left > 0 || word === undefined) return true
  return [...texts].some(([file, text]) => file !== configuration && text.includes(word))
}

/** A build that replaces `process.env.X` has it read in the sources. */
function withReplaced(rules: AccessRules, passed: readonly PassedRead[]): AccessRules {
  const more = passed.some(({ replaced }) => replaced?.startsWith('process.env')) ? ['process.env'] : []
  return { ...rules, environmentObjects: [...new Set([...rules.environmentObjects, ...more])] }
}

const noNames: LocalNames = { variables: new Map(), objects: new Set(), serverOnly: new Set() }

/** Texts of which a source that reads variables holds one. */
export function wordsOf({ environmentObjects, environmentModules = [] }: AccessRules): string[] {
  return [...environmentObjects, ...environmentModules.map(({ module }) => module)]
}

/** Whether a script gives a name to a variable or to the object that holds them all: then any statement may read one. */
function namesObjects({
  environmentObjects,
  environmentModules = [],
}: AccessRules): (script: string) => boolean {
  const bare = environmentObjects.map((object) => `${escapePattern(object)}(?!\\w|[ \\t]*(?:\\??\\.|\\[))`)
  const modules = environmentModules.map(({ module }) => escapePattern(module))
  const any = [...bare, ...modules].join('|')
  const pattern = new RegExp(any)
  return (script) => any !== '' && pattern.test(script)
}

/** Parses what is wanted of a source, and its imports when requested; null when nothing is, or it can't be parsed. */
type Parse = (file: string, wanted: (text: string) => boolean, imports?: boolean) => Program | null

/** Parses of each source the statements that are wanted. Most of a component is of no interest here. */
function parserOf(sources: Sources, namesObjects: (script: string) => boolean): Parse {
  return (file, wanted, imports = false) => {
    const text = sources.texts.get(file) ?? ''
    if (!wanted(text)) return null
    const script = scriptOf(file, text)
    if (script.trim() === '') return null
    const name = scriptName(file)
    // Under another name, any statement may use what is imported.
    const renamed = imports && /^import\b[^'"]*\sas\s/m.test(script)
    if (renamed || namesObjects(script)) return tryParse(name, script, false)
    const likely = keepStatements(script, (piece) => (imports && piece.startsWith('import')) || wanted(piece))
    return (likely === script ? null : tryParse(name, likely, true)) ?? tryParse(name, script, false)
  }
}

function tryParse(name: string, script: string, whole: boolean): Program | null {
  try {
    return sourceTree(name, script, whole).root
  } catch (error) {
    if (error instanceof SyntaxProblem) return null
    throw error
  }
}

/** The constant a read is kept in: `const api = import.meta.env.X`, `const { X: api } = import.meta.env`. */
function constantOf(node: SyntaxNode, name: string): Pick<Carrier, 'constant' | 'exported'> | null {
  const holder = [...outward(node)].find((each) => !isTyped(each))
  if (holder?.type !== 'VariableDeclarator') return null
  const exported = holder.parent?.parent?.type === 'ExportNamedDeclaration'
  if (node.type !== 'ObjectPattern')
    return holder.id.type === 'Identifier' ? { constant: holder.id.name, exported } : null
  const property = node.properties.find((each) => keyName(each) === name)
  const value = property?.type === 'Property' ? property.value : null
  return value?.type === 'Identifier' ? { constant: value.name, exported } : null
}

/** Shorter ones may stand anywhere; UTF-16 units. */
const shortestMessage = 6

interface Use {
  readonly guarded: boolean
  readonly trace: ReturnType<typeof traceAround>
  readonly standIn: string | null
}

/** How one expression is used: guarded against absence, and by which trace it can be known again. */
function useOf(node: SyntaxNode): Use {
  const message = thrownFor(node)
  if (message !== null)
    return {
      guarded: false,
      trace: message.length < shortestMessage ? null : { kind: 'thrown', message },
      standIn: null,
    }
  const guarded = isGuarded(node)
  return {
    guarded,
    trace: guarded ? null : traceAround(node),
    standIn: guarded ? standInFor(node) : null,
  }
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
    const program = parse(file, (text) => names.some((name) => text.includes(name)), true)
    if (!program) continue
    const here = new Map<string, number>()
    for (const carrier of carriers) {
      const isHere = carrier.everywhere || carrier.file === file
      const local = isHere ? carrier.constant : importedAs(program, carrier)
      if (local !== null) here.set(local, carrier.read)
    }
    if (here.size === 0) continue
    walkTree(program, (node) => {
      const read = node.type === 'Identifier' && isUse(node) ? here.get(node.name) : undefined
      if (read !== undefined) note(useOf(node), read)
    })
  }
}

function importedAs({ body }: Program, { exported, file, constant }: Carrier): string | null {
  if (!exported) return null
  const stem = stemOf(file)
  for (const statement of body) {
    if (statement.type !== 'ImportDeclaration' || stemOf(String(statement.source.value)) !== stem) continue
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
