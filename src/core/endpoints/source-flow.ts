import type { Place } from '../model/reading.ts'
import { startOfLine } from '../model/text.ts'
import { scriptName, scriptOf } from '../project/sources/script-parts.ts'
import type { Sources } from '../project/sources/sources.ts'
import type { SyntaxNode } from '../syntax/node.ts'
import { SyntaxProblem } from '../syntax/parse.ts'
import { nodeAt, sourceTree, type Tree } from '../syntax/tree.ts'
import { followNode } from './flow/follow.ts'
import type { Sink } from './flow/sinks.ts'

/** Places of one address that are looked at. */
const mostPlaces = 12

/** What this project does with an address by its own code, where the packages that it hands it to go by their names. */
export class SourceFlow {
  readonly #sources: Sources
  readonly #trees = new Map<string, { readonly script: string; readonly tree: Tree } | null>()

  constructor(sources: Sources) {
    this.#sources = sources
  }

  /** What takes an address, at every place where sources write it out; null where it is not seen at one of them. */
  ofText(url: string): Sink | null {
    return this.#everywhere(this.#sources.findUrls(url), (tree, { offset }) => nodeAt(tree, offset))
  }

  /** What takes a variable, at the places that read it. */
  ofReads(places: readonly Place[]): Sink | null {
    return this.#everywhere(places, (tree, { file, line, column }) => {
      const start = startOfLine(this.#sources.texts.get(file) ?? '', line) + column - 1
      let found = nodeAt(tree, start)
      // `import.meta.env.X` begins with what it is a member of.
      while (found?.parent?.start === start && /^Me/.test(found.parent.type)) found = found.parent
      return found?.type === 'MemberExpression' ? found : null
    })
  }

  /** One place may be what a build leaves out, so that each has to tell. */
  #everywhere<At extends Place>(
    places: readonly At[],
    nodeOf: (tree: Tree, place: At) => SyntaxNode | null,
  ): Sink | null {
    if (places.length > mostPlaces) return null
    const sinks = places.map((place) => {
      const known = this.#treeOf(place.file)
      const node = known && nodeOf(known.tree, place)
      return node ? [...followNode(known.script, known.tree, node).sinks][0] : undefined
    })
    return sinks.every((sink) => sink !== undefined) ? (sinks[0] ?? null) : null
  }

  #treeOf(file: string): { readonly script: string; readonly tree: Tree } | null {
    const known = this.#trees.get(file)
    if (known !== undefined) return known
    const made = treeOf(file, this.#sources.texts.get(file) ?? '')
    this.#trees.set(file, made)
    return made
  }
}

function treeOf(file: string, text: string): { readonly script: string; readonly tree: Tree } | null {
  const script = scriptOf(file, text)
  if (script.trim() === '' || !/\.(?:[cm]?[jt]sx?|vue|svelte|astro|html)$/.test(file)) return null
  try {
    return { script, tree: sourceTree(scriptName(file), script) }
  } catch (error) {
    if (error instanceof SyntaxProblem) return null
    throw error
  }
}
