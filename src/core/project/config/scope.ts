import type * as t from '@babel/types'
import { computedAt, type Lazy, nameOfKey, once, orElse, placeOf } from './fold-helpers.ts'
import type { Module } from './modules.ts'
import { type Folded, member } from './value.ts'

/** Names and their values, folded when they are first requested. */
export interface Scope {
  readonly parent: Scope | null
  readonly names: Map<string, Lazy>
}

/** What declarations need of the evaluation they belong to. */
export interface Evaluation {
  fold(module: Module, node: t.Node, scope: Scope): Folded
  functionOf(module: Module, node: t.Function, scope: Scope): Folded
  exported(file: string, name: string): Folded | null
}

/** Declares what a statement names: constants, functions, imports. */
export function declare(evaluation: Evaluation, module: Module, statement: t.Statement, scope: Scope): void {
  if (statement.type === 'ExportNamedDeclaration' && statement.declaration) {
    declare(evaluation, module, statement.declaration, scope)
  } else if (statement.type === 'VariableDeclaration') {
    for (const { id, init } of statement.declarations) {
      if (init)
        bind(
          evaluation,
          module,
          id,
          once(() => evaluation.fold(module, init, scope)),
          scope,
        )
    }
  } else if (statement.type === 'FunctionDeclaration' && statement.id) {
    scope.names.set(statement.id.name, () => evaluation.functionOf(module, statement, scope))
  } else if (statement.type === 'ImportDeclaration') {
    const file = module.imports.get(statement.source.value)
    if (file === undefined) return
    for (const specifier of statement.specifiers) {
      if (specifier.type === 'ImportNamespaceSpecifier') continue
      const name = specifier.type === 'ImportDefaultSpecifier' ? 'default' : nameOfKey(specifier.imported)
      const place = placeOf(module, specifier)
      scope.names.set(
        specifier.local.name,
        once(() => evaluation.exported(file, name) ?? computedAt(specifier.local.name, place)),
      )
    }
  }
}

/** Binds a name or a pattern of names to a value, defaults included. */
export function bind(
  evaluation: Evaluation,
  module: Module,
  pattern: t.Node,
  value: Lazy,
  scope: Scope,
): void {
  if (pattern.type === 'Identifier') scope.names.set(pattern.name, value)
  if (pattern.type === 'AssignmentPattern') {
    const fallback = pattern.right
    bind(
      evaluation,
      module,
      pattern.left,
      once(() => orElse(value(), () => evaluation.fold(module, fallback, scope))),
      scope,
    )
  }
  if (pattern.type !== 'ObjectPattern') return
  for (const property of pattern.properties) {
    if (property.type !== 'ObjectProperty') continue
    const name = nameOfKey(property.key)
    const place = placeOf(module, property)
    const missing: Folded = { kind: 'value', value: undefined, at: place }
    bind(
      evaluation,
      module,
      property.value,
      once(() => member(value(), name) ?? missing),
      scope,
    )
  }
}

/** The value of a name, in this scope or one around it. */
export function lookUp(scope: Scope | null, name: string): Folded | null {
  for (let at = scope; at; at = at.parent) {
    const found = at.names.get(name)
    if (found) return found()
  }
  return null
}
