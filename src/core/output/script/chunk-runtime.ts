import { fromPage } from '../../model/page-value.ts'
import type { Reference, ReferenceKind } from '../../model/reference.ts'
import { Fold } from '../../syntax/fold.ts'
import { keyName, type SyntaxNode, walkTree } from '../../syntax/node.ts'
import { expressionAt } from '../../syntax/parse.ts'
import { linked } from '../../syntax/tree.ts'
import type { Primitive } from '../../syntax/value.ts'
import { codeAfter } from './literal.ts'
import { keptPublicPath } from './public-path.ts'

/**
 * The runtime of webpack and its kin keeps three members on its require function: `.p`, the public path; `.u`, the
 * name of a chunk's script from its id; `.miniCssF`, the same for its style sheet. Checked against webpack 5, Rspack 1.
 */
const scriptName = /(?<![\w$])([\w$]+)\.u=(?=function|\(?[\w$]*\)?=>)/y
const styleName = /\.(?:miniCssF|k)=(?=function|\(?[\w$]*\)?=>)/g
/** The function is small: a table of every chunk, and what is put around it. */
const longest = 400_000

/** The functions that name chunks: on which object, and where each begins. Found by plain search, since few files hold one. */
function* namers(code: string): Generator<{ name: string; end: number }> {
  for (let at = code.indexOf('.u='); at >= 0; at = code.indexOf('.u=', at + 1)) {
    let start = at
    while (start > 0 && /[\w$]/.test(code.charAt(start - 1))) start--
    scriptName.lastIndex = start
    const name = scriptName.exec(code)?.[1]
    if (name !== undefined) yield { name, end: at + 3 }
  }
}

/** The chunks that such a runtime loads, each by the name its own function gives, below the public path. */
export function chunksOf(code: string): Reference[] {
  const found: Reference[] = []
  for (const { name, end } of namers(code)) {
    const base = publicPathOf(code, name)
    if (base === null) continue
    const hasNoFile = withoutFile(code)
    found.push(...namesFrom(code, end, base, 'lazy-import', name, hasNoFile))
    for (const style of code.matchAll(styleName)) {
      found.push(...namesFrom(code, style.index + style[0].length, base, 'style', null))
    }
  }
  return found
}

interface PublicPath {
  readonly text: string
  readonly against: Reference['against']
}

/** The public path that such a runtime states, when it says from where. */
export function publicPathIn(code: string): string | null {
  for (const { name } of namers(code)) {
    const path = publicPathOf(code, name)
    if (path?.against === 'file' && path.text !== '' && !path.text.startsWith('.')) return path.text
  }
  return null
}

/** `r.p="/b/"`, `r.p=""` from the page, or worked out from the script's own address. */
function publicPathOf(code: string, name: string): PublicPath | null {
  const kept = keptPublicPath(code)
  if (kept !== null) return { text: fromPage(kept), against: 'page' }
  const escaped = name.replace(/\$/g, '\\$')
  const stated = new RegExp(`(?<![\\w$.])${escaped}\\.p=(["'\`])((?:(?!\\1)[^\\\\]|\\\\.)*)\\1`).exec(code)
  if (stated) {
    const text = stated[2] ?? ''
    return { text, against: /^(?:\/|[a-z]+:)/i.test(text) ? 'file' : 'page' }
  }
  const worked = new RegExp(`(?<![\\w$.])${escaped}\\.p=([\\w$]+)(?:\\+(["'\`])([./]*)\\2)?`).exec(code)
  return worked ? { text: worked[3] ?? '', against: 'file' } : null
}

function namesFrom(
  code: string,
  at: number,
  base: PublicPath,
  kind: ReferenceKind,
  loader: string | null,
  isLeftOut: (id: string) => boolean = () => false,
): Reference[] {
  const fn = functionAt(code, at)
  if (!fn) return []
  const ids = idsIn(fn.root)
  // A function without a table makes a name of any id: those that this file loads are known.
  if (ids.size === 0 && loader !== null) for (const id of idsLoaded(code, loader)) ids.add(id)
  const names = new Map<string, string>()
  for (const id of ids) {
    const name = isLeftOut(id) ? null : nameOf(fn, id)
    if (name !== null) names.set(name, id)
  }
  return [...names].map(([name, id]) => {
    const shown = place(code, fn.start, fn.end, id)
    return { kind, raw: base.text + name, against: base.against, ...shown }
  })
}

/** A small function of the script: its tree, where it stands, and what it answers, if that can be told without running it. */
interface Namer {
  readonly root: SyntaxNode
  readonly start: number
  readonly end: number
  readonly call: (argument: Primitive) => Primitive
}

function functionAt(code: string, at: number): Namer | null {
  const root = expressionAt(code, at, longest)
  if (!root) return null
  const nowhere = { file: '', line: 1, column: 1 }
  const fold = new Fold({ text: code.slice(at, at + longest), tree: linked(root), placeOf: () => nowhere })
  const folded = fold.of(root)
  const call = (argument: Primitive): Primitive => {
    const answer =
      folded.kind === 'function' ? folded.call([{ kind: 'value', value: argument, at: nowhere }]) : folded
    return answer.kind === 'value' ? answer.value : null
  }
  return { root, start: root.start + at, end: root.end + at, call }
}

/**
 * A test for the chunks that have no script: all that is in them is taken from another build, as federated modules are. What passes is marked as loaded
 * at once, `if(/^(337|441)$/.test(e))t[e]=0;else{`, `if(441==e)…`, or is not waited for: `if(441!=e){const r=new Promise(…`.
 */
const leftOut =
  /\bif\s?\((?:\/\^\(([\w|()[\]-]{1,4000})\)\$\/\.test\([\w$]+\)|(["'`]?)([\w-]{1,80})\2==[\w$]+)\)\s?[\w$]+\[[\w$]+\]=0;else\s?\{/

const notWaitedFor =
  /\bif\s?\((?:!\/\^\(([\w|()[\]-]{1,4000})\)\$\/\.test\([\w$]+\)|(["'`]?)([\w-]{1,80})\2!=[\w$]+)\)\s?\{(?:const|let|var)\s[\w$]{1,40}=new Promise\(/

function withoutFile(code: string): (id: string) => boolean {
  const [, several, , one] = leftOut.exec(code) ?? notWaitedFor.exec(code) ?? []
  if (one !== undefined) return (id) => id === one
  const pattern = several === undefined ? null : patternOf(`^(?:${several})$`)
  return (id) => pattern?.test(id) === true
}

/** A pattern of a build: only names and choices are in it, so that it is as quick as a list. */
function patternOf(source: string): RegExp | null {
  try {
    return new RegExp(source)
  } catch {
    return null
  }
}

/** The keys of every object in a function, and what it compares with: the ids it knows. */
function idsIn(root: SyntaxNode): Set<string> {
  const found = new Set<string>()
  walkTree(root, (node) => {
    const key = node.type === 'Property' ? keyName(node) : null
    if (key !== null) found.add(key)
    if (node.type !== 'BinaryExpression' || !/^===?$/.test(node.operator)) return
    // `179===e?"static/js/main.js":…` knows an id by comparison.
    for (const side of [node.left, node.right]) if (side.type === 'Literal') found.add(String(side.value))
  })
  return found
}

/** The name for an id, as a number and as a text: minified tables hold either. */
function nameOf({ call }: Namer, id: string): string | null {
  for (const argument of /^\d+$/.test(id) ? [Number(id), id] : [id]) {
    const name = call(argument)
    if (typeof name === 'string' && !/undefined|null/.test(name) && /\.\w+$/.test(name)) return name
  }
  return null
}

/**
 * The ids that this file loads. A module may have been given the require function under another name than the runtime has:
 * `t.e(7).then(t.bind(t,"uh"))` or `t.e(7).then(()=>t("uh"))` in a module, where the runtime says `a.u=`.
 */
function idsLoaded(code: string, loader: string): string[] {
  const calls = /(?<![\w$.])([\w$]+)\.e\((?:(\d+)|(["'`])([^"'`\\]+)\3)\)/g
  return [...code.matchAll(calls)].flatMap((match) => {
    const [whole, name = '', number, , text] = match
    const after = code.slice(match.index + whole.length, match.index + whole.length + 200)
    const isRequire = name === loader || after.includes(`.bind(${name},`) || calledIn(after, name)
    return isRequire ? [number ?? text ?? ''] : []
  })
}

/** Whether a function of that name is called, as the one that loads modules is as soon as its chunk is there. */
function calledIn(code: string, name: string): boolean {
  for (let at = code.indexOf(`${name}(`); at >= 0; at = code.indexOf(`${name}(`, at + 1))
    if (!/[\w$.]/.test(code.charAt(at - 1))) return true
  return false
}

/** Where the table holds an id's entry; the last one, since names come before hashes. */
function place(code: string, start: number, end: number, id: string): { offset: number; length: number } {
  const text = code.slice(start, end)
  const known = entriesOf(text).get(id)
  if (known !== undefined) return span(code, start + known)
  for (const key of [`${id}===`, `===${id}`, `"${id}"`]) {
    const at = text.lastIndexOf(key)
    if (at < 0) continue
    return span(code, start + at)
  }
  return { offset: start, length: Math.min(80, end - start) }
}

function span(code: string, offset: number): { offset: number; length: number } {
  const rest = codeAfter(code, offset, 120)
  return { offset, length: Math.max(1, /^[^,}?]*/.exec(rest)?.[0].length ?? 1) }
}

/** The entries of one function's tables, by their names: there are thousands, and each is looked for. */
const tables: { text: string; entries: ReadonlyMap<string, number> } = { text: '', entries: new Map() }

function entriesOf(text: string): ReadonlyMap<string, number> {
  if (tables.text !== text) {
    const entries = new Map<string, number>()
    for (const match of text.matchAll(/[,{](?:(\w+)|"([^"\\]{1,200})"):/g))
      entries.set(match[1] ?? match[2] ?? '', match.index + 1)
    Object.assign(tables, { text, entries })
  }
  return tables.entries
}
