import type { Program } from 'acorn'
import { directoryOf, joinUp } from '../../model/folder.ts'
import { Fold } from '../../syntax/fold.ts'
import { isCall, isFunction, memberName, type SyntaxNode, textOf } from '../../syntax/node.ts'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { placeIn } from '../../syntax/place.ts'
import { bindingOf, sourceTree, type Tree } from '../../syntax/tree.ts'
import { type Folded, member } from '../../syntax/value.ts'
import { scriptName, scriptOf } from '../sources/script-parts.ts'
import type { Sources } from '../sources/sources.ts'

/** A table of constants that other modules take theirs from is found at the end of so many imports. */
const deepest = 4

interface Module {
  readonly tree: Tree<Program>
  readonly fold: Fold
}

/** The texts that sources give routes: written out, as constants of this module or another, or one for each item of a list. */
export class RouteTexts {
  readonly #sources: Sources
  readonly #modules = new Map<string, Module | null>()
  #depth = 0

  constructor(sources: Sources) {
    this.#sources = sources
  }

  /** The code of a source; null where it can't be parsed. */
  program(file: string): Program | null {
    return this.#module(file)?.tree.root ?? null
  }

  /** Every text that an expression of a source may be; none where only the running code knows. */
  of(file: string, node: SyntaxNode | undefined): string[] {
    const plain = textOf(node)
    if (plain !== null) return [plain]
    const module = node && this.#module(file)
    if (!module) return []
    const folded = module.fold.of(node)
    if (folded.kind === 'value') return typeof folded.value === 'string' ? [folded.value] : []
    return itemOf(node, module)
  }

  #module(file: string): Module | null {
    const known = this.#modules.get(file)
    if (known !== undefined) return known
    const made = this.#read(file)
    this.#modules.set(file, made)
    return made
  }

  #read(file: string): Module | null {
    const text = scriptOf(file, this.#sources.texts.get(file) ?? '')
    try {
      const tree = sourceTree(scriptName(file), text)
      const imported = (from: string, name: string): Folded | null => this.#exported(file, from, name)
      return { tree, fold: new Fold({ text, tree, placeOf: placeIn(file) }, { imported }) }
    } catch (error) {
      if (error instanceof SyntaxProblem) return null
      throw error
    }
  }

  #exported(file: string, from: string, name: string): Folded | null {
    const found = this.#depth < deepest ? moduleOf(this.#sources, file, from) : null
    const module = found === null ? null : this.#module(found)
    if (!module) return null
    this.#depth++
    try {
      const value = exportedNode(module.tree, name)
      return value && module.fold.of(value)
    } finally {
      this.#depth--
    }
  }
}

function exportedNode(tree: Tree<Program>, name: string): SyntaxNode | null {
  for (const statement of tree.root.body) {
    if (name === 'default' && statement.type === 'ExportDefaultDeclaration')
      return statement.declaration as SyntaxNode
  }
  const declared = tree.scope.lookup(tree.exported.get(name) ?? '')?.declared[0]
  return declared?.parent?.type === 'VariableDeclarator'
    ? ((declared.parent.init as SyntaxNode | null) ?? null)
    : null
}

/** The source that an import of a path means, beside the importing one or below a short name for the sources' directory. */
function moduleOf({ files }: Sources, file: string, from: string): string | null {
  const alias = /^(?:[@~#]\/|src\/)(.+)$/.exec(from)?.[1]
  if (alias === undefined && !from.startsWith('.')) return null
  const path = (alias ?? joinUp(directoryOf(file), from)).replace(/\.[cm]?[jt]sx?$/, '')
  const means = (each: string): boolean => {
    const stem = each.replace(/\.[cm]?[jt]sx?$/, '').replace(/\/index$/, '')
    return stem === path || (alias !== undefined && stem.endsWith(`/${path}`))
  }
  return files.find((each) => /\.[cm]?[jt]sx?$/.test(each) && means(each)) ?? null
}

/** `page.path` in `pages.map((page) => …)`: that of each page. */
function itemOf(node: SyntaxNode, { tree, fold }: Module): string[] {
  const key = memberName(node)
  const owner = node.type === 'MemberExpression' ? (node.object as SyntaxNode) : node
  const [name] = bindingOf(tree, owner)?.declared ?? []
  const pattern = name?.parent?.type === 'Property' ? name.parent : null
  const fn = pattern ? pattern.parent?.parent : name?.parent
  const call = fn && isFunction(fn) ? fn.parent : null
  if (!call || !isCall(call) || memberName(call.callee as SyntaxNode) !== 'map') return []
  const list = fold.of((call.callee as SyntaxNode & { type: 'MemberExpression' }).object as SyntaxNode)
  if (list.kind !== 'list') return []
  const wanted = key ?? (pattern && name ? name.name : null)
  return list.items.flatMap((item) => {
    const value = wanted === null ? item : item.kind === 'object' ? member(item, wanted) : null
    return value?.kind === 'value' && typeof value.value === 'string' ? [value.value] : []
  })
}
