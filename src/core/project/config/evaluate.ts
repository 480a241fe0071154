import type * as t from '@babel/types'
import type { Place } from '../../model/reading.ts'
import { computedAt, nameOfKey, placeOf, projectPath, returns, shorten, truthOf } from './fold-helpers.ts'
import { knownCall } from './known-calls.ts'
import { isRequire, type Module } from './modules.ts'
import { foldBinary, foldLogical, foldObject, foldTemplate, type Operands } from './operators.ts'
import { bind, declare, type Evaluation, lookUp, type Scope } from './scope.ts'
import { type Folded, member, type Primitive, projectRoot } from './value.ts'

/** What the code would find around it when it runs. */
export interface Surroundings {
  /** What a configuration function is called with: `mode`, `command` and the like. */
  readonly argument: Readonly<Record<string, Primitive>>
  /** Variables known from the project's own files. Values stay in memory. */
  readonly environment: ReadonlyMap<string, string>
}

/** Deeper nesting than this is a program, not a configuration. */
const deepest = 200

/**
 * Folds what a file exports, by default or under a name, without running it: literals, templates, operators,
 * constants, conditionals, spreads, simple functions, relative imports and a few well-known calls.
 * What it cannot fold is `computed`, with the expression.
 */
export function foldExport(
  modules: ReadonlyMap<string, Module>,
  entry: string,
  around: Surroundings,
  name = 'default',
): Folded | null {
  return new Evaluator(modules, around).exported(entry, name)
}

class Evaluator implements Evaluation {
  readonly #modules: ReadonlyMap<string, Module>
  readonly #around: Surroundings
  readonly #scopes = new Map<string, Scope>()
  readonly #busy = new Set<string>()
  #depth = 0

  constructor(modules: ReadonlyMap<string, Module>, around: Surroundings) {
    this.#modules = modules
    this.#around = around
  }

  exported(file: string, name: string): Folded | null {
    const module = this.#modules.get(file)
    const key = `${file}\u0000${name}`
    if (!module || this.#busy.has(key)) return null
    this.#busy.add(key)
    try {
      const scope = this.#moduleScope(module)
      for (const statement of module.body) {
        const found = this.#exportOf(module, statement, name, scope)
        if (found) return name === 'default' ? this.#called(found, module) : found
      }
      return null
    } finally {
      this.#busy.delete(key)
    }
  }

  #exportOf(module: Module, statement: t.Statement, name: string, scope: Scope): Folded | null {
    if (statement.type === 'ExportDefaultDeclaration' && name === 'default') {
      const { declaration } = statement
      return declaration.type === 'FunctionDeclaration'
        ? this.functionOf(module, declaration, scope)
        : this.fold(module, declaration, scope)
    }
    if (statement.type === 'ExportNamedDeclaration') {
      for (const specifier of statement.specifiers) {
        if (specifier.type !== 'ExportSpecifier' || nameOfKey(specifier.exported) !== name) continue
        const source = statement.source && module.imports.get(statement.source.value)
        if (source) return this.exported(source, specifier.local.name)
        return lookUp(scope, specifier.local.name)
      }
      if (
        statement.declaration?.type === 'VariableDeclaration' ||
        statement.declaration?.type === 'FunctionDeclaration'
      ) {
        return scope.names.get(name)?.() ?? null
      }
    }
    if (statement.type === 'ExpressionStatement' && statement.expression.type === 'AssignmentExpression') {
      const { left, right } = statement.expression
      const target = module.text.slice(left.start ?? 0, left.end ?? 0)
      const wanted =
        name === 'default'
          ? ['module.exports', 'exports.default']
          : [`exports.${name}`, `module.exports.${name}`]
      if (wanted.includes(target)) return this.fold(module, right, scope)
      if (target === 'module.exports') return member(this.fold(module, right, scope), name)
    }
    return null
  }

  /** A configuration may be a function, of what the build tells it. */
  #called(value: Folded, module: Module): Folded {
    if (value.kind !== 'function') return value
    const at: Place = { file: module.file, line: 1, column: 1 }
    const members = new Map<string, Folded>()
    for (const [name, primitive] of Object.entries(this.#around.argument)) {
      members.set(name, { kind: 'value', value: primitive, at })
    }
    return value.call([{ kind: 'object', members, open: true, at }])
  }

  #moduleScope(module: Module): Scope {
    const known = this.#scopes.get(module.file)
    if (known) return known
    const scope: Scope = { parent: null, names: new Map() }
    this.#scopes.set(module.file, scope)
    for (const statement of module.body) declare(this, module, statement, scope)
    return scope
  }

  /** Folds one expression. */
  fold(module: Module, node: t.Node, scope: Scope): Folded {
    const at = placeOf(module, node)
    if (this.#depth >= deepest) return this.#unknown(module, node)
    this.#depth++
    try {
      return this.#folded(module, node, scope, at) ?? this.#unknown(module, node)
    } finally {
      this.#depth--
    }
  }

  #folded(module: Module, node: t.Node, scope: Scope, at: Place): Folded | null {
    const value = (primitive: Primitive): Folded => ({ kind: 'value', value: primitive, at })
    const operands: Operands = { module, fold: (part) => this.fold(module, part, scope) }
    switch (node.type) {
      case 'StringLiteral':
      case 'NumericLiteral':
      case 'BooleanLiteral':
        return value(node.value)
      case 'NullLiteral':
        return value(null)
      case 'Identifier':
        if (node.name === 'undefined') return value(undefined)
        if (node.name === '__dirname') return value(projectPath(module.file))
        return lookUp(scope, node.name)
      case 'TemplateLiteral':
        return foldTemplate(node, at, operands)
      case 'ObjectExpression':
        return foldObject(node, at, operands)
      case 'ArrayExpression':
        return {
          kind: 'list',
          items: node.elements.flatMap((element) => (element ? [this.fold(module, element, scope)] : [])),
          at,
        }
      case 'ConditionalExpression': {
        const test = this.fold(module, node.test, scope)
        const truth = truthOf(test)
        return truth === null ? null : this.fold(module, truth ? node.consequent : node.alternate, scope)
      }
      case 'LogicalExpression':
        return foldLogical(node, operands)
      case 'BinaryExpression':
        return foldBinary(node, at, operands)
      case 'UnaryExpression': {
        const truth = node.operator === '!' ? truthOf(this.fold(module, node.argument, scope)) : null
        return truth === null ? null : value(!truth)
      }
      case 'MemberExpression':
      case 'OptionalMemberExpression':
        return this.#member(module, node, scope, at)
      case 'CallExpression':
      case 'NewExpression':
        return this.#call(module, node, scope, at)
      case 'ArrowFunctionExpression':
      case 'FunctionExpression':
      case 'ObjectMethod':
        return this.functionOf(module, node, scope)
      case 'AwaitExpression':
        return this.fold(module, node.argument, scope)
      case 'TSAsExpression':
      case 'TSSatisfiesExpression':
      case 'TSNonNullExpression':
      case 'ParenthesizedExpression':
        return this.fold(module, node.expression, scope)
      default:
        return null
    }
  }

  #member(
    module: Module,
    node: t.MemberExpression | t.OptionalMemberExpression,
    scope: Scope,
    at: Place,
  ): Folded | null {
    const key = node.computed ? this.fold(module, node.property, scope) : null
    const name = key ? (key.kind === 'value' ? String(key.value) : null) : nameOfKey(node.property)
    if (name === null) return null
    const object = module.text.slice(node.object.start ?? 0, node.object.end ?? 0)
    if (object === 'process.env' || object === 'import.meta.env') return this.#environment(name, at)
    if (object === 'import.meta' && name === 'url')
      return { kind: 'value', value: `file://${projectRoot}/${module.file}`, at }
    if (object === 'import.meta' && name === 'dirname')
      return { kind: 'value', value: projectPath(module.file), at }
    const owner = this.fold(module, node.object, scope)
    if (owner.kind !== 'object') return null
    return member(owner, name) ?? { kind: 'value', value: undefined, at }
  }

  /** Variables of the building machine are not known here, unless the project's own files set them. */
  #environment(name: string, at: Place): Folded | null {
    if (name === 'NODE_ENV') return { kind: 'value', value: 'production', at }
    const value = this.#around.environment.get(name)
    return value === undefined ? null : { kind: 'value', value, at }
  }

  #call(module: Module, node: t.CallExpression | t.NewExpression, scope: Scope, at: Place): Folded | null {
    const callee = module.text.slice(node.callee.start ?? 0, node.callee.end ?? 0)
    const args = node.arguments.map((argument) => this.fold(module, argument, scope))
    if (isRequire(node.callee)) {
      const specifier = args[0]?.kind === 'value' ? String(args[0].value) : ''
      const file = module.imports.get(specifier)
      return file === undefined ? null : this.exported(file, 'default')
    }
    const known = knownCall(callee, args, at, this.#around.environment)
    if (known) return known
    const own = node.callee.type === 'Identifier' ? lookUp(scope, node.callee.name) : null
    if (own?.kind === 'function') return own.call(args)
    const expression = shorten(module.text.slice(node.start ?? 0, node.end ?? 0))
    return { kind: 'call', callee: module.packages.get(callee) ?? callee, args, expression, at }
  }

  /** A function that can be called with folded arguments. */
  functionOf(module: Module, node: t.Function, scope: Scope): Folded {
    const call = (args: readonly Folded[]): Folded => {
      const inner: Scope = { parent: scope, names: new Map() }
      for (const [index, parameter] of node.params.entries()) {
        const argument = args[index]
        if (argument) bind(this, module, parameter, () => argument, inner)
      }
      if (node.body.type !== 'BlockStatement') return this.fold(module, node.body, inner)
      const result = this.#run(module, node.body.body, inner)
      return result && result !== 'unknown' ? result : this.#unknown(module, node)
    }
    return { kind: 'function', call, at: placeOf(module, node) }
  }

  /** Follows statements to the value they return; "unknown" when that hangs on what can't be folded. */
  #run(module: Module, statements: readonly t.Statement[], scope: Scope): Folded | 'unknown' | null {
    for (const statement of statements) {
      if (statement.type === 'ReturnStatement') {
        return statement.argument ? this.fold(module, statement.argument, scope) : 'unknown'
      }
      if (statement.type === 'IfStatement') {
        const truth = truthOf(this.fold(module, statement.test, scope))
        const branch = truth === null ? null : truth ? statement.consequent : statement.alternate
        if (truth === null && returns(statement)) return 'unknown'
        if (!branch) continue
        const body = branch.type === 'BlockStatement' ? branch.body : [branch]
        const result = this.#run(module, body, scope)
        if (result) return result
      } else if (/^(For|While|Do|Switch|Try)/.test(statement.type) && returns(statement)) {
        return 'unknown'
      } else declare(this, module, statement, scope)
    }
    return null
  }

  #unknown(module: Module, node: t.Node): Folded {
    return computedAt(module.text.slice(node.start ?? 0, node.end ?? 0), placeOf(module, node))
  }
}
