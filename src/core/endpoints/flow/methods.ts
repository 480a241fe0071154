import { givenNamed, membersNamed } from '../../syntax/name-index.ts'
import { isCall, isFunction, keyName, memberName, type SyntaxNode, walkTree } from '../../syntax/node.ts'
import { bindingOf, type Tree, usesOf } from '../../syntax/tree.ts'

/** Methods of one name: of more, nobody knows which one a call means. */
const mostOfOneName = 1

/** Places of a word in a script: of more, it is no name of one thing, and looking at all of them takes long. */
const mostPlaces = 40

type ClassNode = SyntaxNode & { type: 'ClassDeclaration' | 'ClassExpression' }

/** The classes and methods of a script, as far as names tell which is which. */
export class Methods {
  readonly #code: string
  readonly #tree: Tree
  readonly #named = new Map<string, readonly SyntaxNode[]>()

  constructor(code: string, tree: Tree) {
    this.#code = code
    this.#tree = tree
  }

  /** The function that a call of a member means: that of the class it stands in, of one above, or the only one of its name. */
  called(callee: SyntaxNode): SyntaxNode | null {
    if (callee.type === 'Super') return this.#constructorAbove(classAround(callee))
    const name = memberName(callee)
    if (name === null || callee.type !== 'MemberExpression') return null
    const around = callee.object.type === 'ThisExpression' ? classAround(callee) : null
    for (const each of around ? this.#line(around) : []) {
      const own = each.body.body.map(functionIn).find((one) => one && nameOf(one) === name)
      if (own) return own
    }
    const named = this.#functionsNamed(name)
    const [only] = named
    return only && named.length <= mostOfOneName && isFunction(only) ? only : null
  }

  /** The constructor that makes an object of a class: its own, else that of the class above. */
  constructorFor(node: SyntaxNode): SyntaxNode | null {
    const made = isClass(node) ? node : null
    return made && (constructorOf(made) ?? this.#constructorAbove(made))
  }

  /** The calls of a method, or the reads of a getter: nodes whose value is what it gives back. */
  resultsOf(fn: SyntaxNode): SyntaxNode[] {
    const name = nameOf(fn)
    if (name === null || this.#functionsNamed(name).length > mostOfOneName)
      return this.#resultsInside(fn, name)
    const isGetter = fn.parent?.type === 'MethodDefinition' && fn.parent.kind === 'get'
    this.#tree.watch?.word(plain(name), null)
    return membersNamed(this.#tree, name).flatMap((node) => givenBy(node, isGetter))
  }

  #resultsInside(fn: SyntaxNode, name: string | null): SyntaxNode[] {
    const around = classAround(fn)
    if (!around || name === null) return []
    const isGetter = fn.parent?.type === 'MethodDefinition' && fn.parent.kind === 'get'
    this.#tree.watch?.word(plain(name), around)
    const found: SyntaxNode[] = []
    walkTree(around, (node) => {
      if (
        node.type === 'MemberExpression' &&
        node.object.type === 'ThisExpression' &&
        memberName(node) === name
      )
        found.push(...givenBy(node, isGetter))
    })
    return found
  }

  /** The bodies in which `this` may be an object of a class: its own, and of those that extend it. */
  bodiesWith(body: SyntaxNode): SyntaxNode[] {
    const owner = body.parent
    const binding = owner && isClass(owner) ? this.#bindingOf(owner) : null
    if (!binding) return [body]
    const below = usesOf(this.#tree, binding).flatMap((use) =>
      use.parent && isClass(use.parent) && use.parent.superClass === use
        ? [use.parent.body as SyntaxNode]
        : [],
    )
    return [body, ...below]
  }

  /** The uses of a class by its name: `Api` of `Api.BASE`. */
  usesOfClass(body: SyntaxNode): readonly SyntaxNode[] {
    const owner = body.parent
    if (!owner || !isClass(owner)) return []
    const inner = owner.id ? bindingOf(this.#tree, owner.id as SyntaxNode) : null
    const outer = this.#bindingOf(owner)
    return [...new Set([inner, outer].flatMap((each) => (each ? usesOf(this.#tree, each) : [])))]
  }

  #bindingOf(owner: ClassNode): ReturnType<typeof bindingOf> {
    const { parent } = owner
    if (parent?.type === 'VariableDeclarator' && parent.init === owner)
      return bindingOf(this.#tree, parent.id as SyntaxNode)
    return owner.id ? bindingOf(this.#tree, owner.id as SyntaxNode) : null
  }

  /** A class and those above it, as far as they are of this script. */
  #line(first: ClassNode): ClassNode[] {
    const line: ClassNode[] = []
    for (let at: ClassNode | null = first; at && !line.includes(at); at = this.#above(at)) line.push(at)
    return line
  }

  #above({ superClass }: ClassNode): ClassNode | null {
    const binding = superClass ? bindingOf(this.#tree, superClass as SyntaxNode) : null
    const holder = binding?.declared.length === 1 ? binding.declared[0]?.parent : null
    const made = holder?.type === 'VariableDeclarator' ? (holder.init as SyntaxNode | null) : holder
    return made && isClass(made) ? made : null
  }

  #constructorAbove(made: ClassNode | null): SyntaxNode | null {
    const above = made && this.#above(made)
    return above ? this.constructorFor(above) : null
  }

  #functionsNamed(name: string): readonly SyntaxNode[] {
    const known = this.#named.get(name)
    if (known) return known
    const word = plain(name)
    // Too many to tell them apart: as if there were several.
    if (ofEverything.test(name) || isFrequent(this.#code, word)) return crowd
    this.#tree.watch?.word(word, null)
    const found = givenNamed(this.#tree, name).filter((value) => !isPlain(value))
    this.#named.set(name, found)
    return found
  }
}

/** Methods that texts, lists, maps and promises have. */
const ofEverything =
  /^(?:get|set|has|add|delete|then|catch|finally|map|filter|find|forEach|push|pop|concat|join|slice|replace|split|trim|call|apply|bind|toString|valueOf|next|return|on|off|emit|constructor|render|init|run|use|of|from|create)$/

const crowd: readonly SyntaxNode[] = Array.from({ length: mostOfOneName + 1 }, () => ({}) as SyntaxNode)

function plain(name: string): string {
  return name.replace(/^#/, '')
}

/** Whether a word stands in so many places that it names no one thing. */
export function isFrequent(code: string, word: string): boolean {
  let count = 0
  for (let at = code.indexOf(word); at >= 0; at = code.indexOf(word, at + 1))
    if (++count > mostPlaces) return true
  return false
}

function isClass(node: SyntaxNode): node is ClassNode {
  return node.type === 'ClassDeclaration' || node.type === 'ClassExpression'
}

/** The class that a node stands in. */
function classAround(node: SyntaxNode): ClassNode | null {
  for (let at: SyntaxNode | undefined = node; at; at = at.parent) if (isClass(at)) return at
  return null
}

/** The function of a constructor. */
export function constructorOf({ body }: ClassNode): SyntaxNode | null {
  const made = body.body.find((each) => each.type === 'MethodDefinition' && each.kind === 'constructor')
  return made?.type === 'MethodDefinition' ? (made.value as SyntaxNode) : null
}

/** The function that a member of a class or object has for its value. */
function functionIn(node: SyntaxNode): SyntaxNode | null {
  if (node.type === 'MethodDefinition') return node.kind === 'constructor' ? null : (node.value as SyntaxNode)
  if (node.type !== 'Property' && node.type !== 'PropertyDefinition') return null
  const value = node.value as SyntaxNode | null
  return value && isFunction(value) ? value : null
}

/** A text, a number or an object is no method of that name. */
function isPlain({ type }: SyntaxNode): boolean {
  return /^(?:Literal|TemplateLiteral|ObjectExpression|ArrayExpression|UnaryExpression)$/.test(type)
}

function nameOf(fn: SyntaxNode): string | null {
  const holder = fn.parent
  return holder && functionIn(holder) === fn ? keyName(holder) : null
}

/** What a member gives: by a call, or by itself where it is a getter. */
function givenBy(member: SyntaxNode, isGetter: boolean): SyntaxNode[] {
  if (isGetter) return [member]
  const { parent } = member
  return parent && isCall(parent) && parent.callee === member ? [parent] : []
}
