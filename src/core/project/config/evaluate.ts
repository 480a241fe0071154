import type { ExportNamedDeclaration, Statement } from 'acorn'
import { directoryInCode, projectRoot } from '../../model/project-path.ts'
import type { Place } from '../../model/reading.ts'
import { Fold } from '../../syntax/fold.ts'
import { dottedName, keyName, outerName, type SyntaxNode, walkTree } from '../../syntax/node.ts'
import { type Folded, member, type Primitive } from '../../syntax/value.ts'
import { knownCall, wrapped } from './known-calls.ts'
import type { Module } from './modules.ts'

/** The value of a variable, and the place of the file that sets it. */
export interface HandedValue {
  readonly value: string
  readonly at: Place
}

/** What a build tells its configuration. */
export interface BuildContext {
  /** What a configuration function is called with: `mode`, `command` and the like. */
  readonly argument: Readonly<Record<string, Primitive>> | string
  /** Variables known from the project's own files. Values stay in memory. */
  readonly environment: ReadonlyMap<string, string>
  /** Variables that pipeline and container files set: a build may have had them, and one on another machine not. */
  readonly handed?: ReadonlyMap<string, HandedValue>
}

/**
 * Folds what a file exports, by default or under a name, without running it; relative imports are followed, and a few
 * well-known calls. What it cannot fold is `computed`, with the expression.
 */
export function foldExport(
  modules: ReadonlyMap<string, Module>,
  entry: string,
  context: BuildContext,
  name = 'default',
): Folded | null {
  return new Exports(modules, context).of(entry, name)
}

/**
 * Folds the first member of that name in any object that a file writes: what a script hands to the builder that it calls. One that
 * can be known goes before one that can't.
 */
export function foldMember(
  modules: ReadonlyMap<string, Module>,
  entry: string,
  context: BuildContext,
  name: string,
): Folded | null {
  return new Exports(modules, context).memberIn(entry, name)
}

class Exports {
  readonly #modules: ReadonlyMap<string, Module>
  readonly #context: BuildContext
  readonly #folds = new Map<string, Fold>()
  readonly #busy = new Set<string>()

  constructor(modules: ReadonlyMap<string, Module>, context: BuildContext) {
    this.#modules = modules
    this.#context = context
  }

  of(file: string, name: string): Folded | null {
    const module = this.#modules.get(file)
    const key = `${file}\u0000${name}`
    if (!module || this.#busy.has(key)) return null
    this.#busy.add(key)
    try {
      for (const statement of module.tree.root.body) {
        const found = this.#exportOf(module, statement, name)
        if (found) return name === 'default' ? this.#called(found, module) : found
      }
      return name === 'default' ? this.#memberByMember(module) : null
    } finally {
      this.#busy.delete(key)
    }
  }

  memberIn(file: string, name: string): Folded | null {
    const module = this.#modules.get(file)
    const found: Folded[] = []
    if (module)
      walkTree(module.tree.root, (node) => {
        if (node.type === 'Property' && keyName(node) === name) found.push(this.#fold(module, node.value))
      })
    return found.find(({ kind }) => kind === 'value') ?? found[0] ?? null
  }

  #exportOf(module: Module, statement: Module['tree']['root']['body'][number], name: string): Folded | null {
    switch (statement.type) {
      case 'ExportDefaultDeclaration':
        return name === 'default' ? this.#fold(module, statement.declaration) : null
      case 'ExportNamedDeclaration':
        return this.#namedExport(module, statement, name)
      case 'ExpressionStatement':
        return this.#assignedExport(module, statement, name)
      default:
        return null
    }
  }

  #namedExport(module: Module, statement: ExportNamedDeclaration, name: string): Folded | null {
    for (const { local, exported } of statement.specifiers) {
      if (outerName(exported) !== name) continue
      const source = statement.source && module.imports.get(String(statement.source.value))
      return source ? this.of(source, outerName(local)) : this.#fold(module, local)
    }
    const { declaration } = statement
    if (declaration?.type === 'FunctionDeclaration' && declaration.id.name === name)
      return this.#fold(module, declaration)
    if (declaration?.type !== 'VariableDeclaration') return null
    const declared = [...module.tree.declared].find(
      ([node, binding]) =>
        binding.name === name && binding.scope.parent === null && isBelow(node, declaration),
    )
    return declared ? this.#fold(module, declared[0]) : null
  }

  /** `module.exports = …`, `exports.name = …`. */
  #assignedExport(module: Module, statement: Statement, name: string): Folded | null {
    const assignment = statement.type === 'ExpressionStatement' ? statement.expression : null
    if (assignment?.type !== 'AssignmentExpression') return null
    const target = dottedName(assignment.left)
    const wanted =
      name === 'default'
        ? ['module.exports', 'exports.default']
        : [`exports.${name}`, `module.exports.${name}`]
    if (target !== null && wanted.includes(target)) return this.#fold(module, assignment.right)
    return target === 'module.exports' ? member(this.#fold(module, assignment.right), name) : null
  }

  /** `exports.base = …`, one statement for each member; null when there is none. */
  #memberByMember(module: Module): Folded | null {
    const members = new Map<string, Folded>()
    for (const statement of module.tree.root.body) {
      const assignment = statement.type === 'ExpressionStatement' ? statement.expression : null
      if (assignment?.type !== 'AssignmentExpression') continue
      const name = /^(?:module\.)?exports\.(\w+)$/.exec(dottedName(assignment.left) ?? '')?.[1]
      if (name !== undefined) members.set(name, this.#fold(module, assignment.right))
    }
    const at: Place = { file: module.file, line: 1, column: 1 }
    return members.size > 0 ? { kind: 'object', members, open: false, at } : null
  }

  /** A configuration may be a function, of what the build tells it. */
  #called(value: Folded, module: Module): Folded {
    if (value.kind !== 'function') return value
    const at: Place = { file: module.file, line: 1, column: 1 }
    const { argument } = this.#context
    if (typeof argument === 'string') return value.call([{ kind: 'value', value: argument, at }])
    const members = new Map<string, Folded>()
    for (const [name, primitive] of Object.entries(argument)) {
      members.set(name, { kind: 'value', value: primitive, at })
    }
    return value.call([{ kind: 'object', members, open: true, at }])
  }

  #fold(module: Module, node: SyntaxNode): Folded {
    const known = this.#folds.get(module.file)
    if (known) return known.of(node)
    const required = (specifier: string, name: string): Folded | null => {
      const file = module.imports.get(specifier)
      return file === undefined ? null : this.of(file, name)
    }
    const fold = new Fold(module, {
      imported: required,
      named: (name, at) => this.#named(module, name, at),
      called: (callee, args, at) =>
        callee === 'require'
          ? required(args[0]?.kind === 'value' ? String(args[0].value) : '', 'default')
          : knownCall(callee, args, at, this.#context.environment),
      wrapped,
      // A file's URL is folded to its path already.
      textMember: (text, name) => (name === 'pathname' ? text : null),
      packageOf: (name) => module.packages.get(name) ?? null,
      inOrder: true,
    })
    this.#folds.set(module.file, fold)
    return fold.of(node)
  }

  /** Variables of the building machine are not known here, unless the project's own files set them. */
  #named({ file }: Module, name: string, at: Place): Folded | null {
    if (name === '__dirname' || name === 'import.meta.dirname')
      return { kind: 'value', value: directoryInCode(file), at }
    if (name === 'import.meta.url') return { kind: 'value', value: `file://${projectRoot}/${file}`, at }
    const variable = /^(?:process\.env|import\.meta\.env)\.(\w+)$/.exec(name)?.[1]
    if (variable === undefined) return null
    const handed = this.#context.handed?.get(variable)
    const value =
      variable === 'NODE_ENV' ? (handed ? undefined : 'production') : this.#context.environment.get(variable)
    if (value !== undefined) return { kind: 'value', value, at }
    return handed === undefined
      ? { kind: 'computed', expression: name, at, variable }
      : { kind: 'value', value: handed.value, at, dependsOn: { variable, setAt: handed.at } }
  }
}

function isBelow(node: SyntaxNode, ancestor: SyntaxNode): boolean {
  return node.start >= ancestor.start && node.end <= ancestor.end
}
