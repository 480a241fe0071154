import type * as t from '@babel/types'
import type { Place } from '../../model/reading.ts'
import type { Module } from './modules.ts'
import { type Folded, projectRoot } from './value.ts'

/** A value that is folded when it is first requested. */
export type Lazy = () => Folded

/** What is written as code and not known. */
export function computedAt(expression: string, at: Place): Folded {
  return { kind: 'computed', expression: shorten(expression), at }
}

/** An expression on one line, cut where it grows long. */
export function shorten(expression: string): string {
  const line = expression.replace(/\s+/g, ' ')
  return line.length > 120 ? `${line.slice(0, 119)}…` : line
}

/** Where a node is written. */
export function placeOf(module: Module, node: t.Node): Place {
  const start = node.loc?.start
  return { file: module.file, line: start?.line ?? 1, column: (start?.column ?? 0) + 1 }
}

/** The directory of a file, as the code in it would know it. */
export function projectPath(file: string): string {
  const slash = file.lastIndexOf('/')
  return slash < 0 ? projectRoot : `${projectRoot}/${file.slice(0, slash)}`
}

/** A property's name, `''` when it is computed. */
export function nameOfKey(key: t.Node): string {
  if (key.type === 'Identifier') return key.name
  if (key.type === 'StringLiteral' || key.type === 'NumericLiteral') return String(key.value)
  return ''
}

/** A member is shown where its key stands: that is the line a person edits. */
export function withPlace(value: Folded, at: Place): Folded {
  return value.kind === 'object' || value.kind === 'list' || value.kind === 'function'
    ? value
    : { ...value, at }
}

/** Whether a value counts as true; null when that is not known. */
export function truthOf(value: Folded): boolean | null {
  if (value.kind === 'computed' || value.kind === 'call') return null
  return value.kind === 'value' ? Boolean(value.value) : true
}

/** The value, or the fallback when the value is missing. */
export function orElse(value: Folded, fallback: Lazy): Folded {
  if (value.kind === 'value') return value.value === null || value.value === undefined ? fallback() : value
  // A variable nobody in the project sets is taken as unset: the default is what a plain build uses.
  return value.kind === 'computed' && /^(?:process\.env|import\.meta\.env|env)\b/.test(value.expression)
    ? fallback()
    : value
}

/** Whether an expression reads the environment. */
export function isEnvironment(module: Module, node: t.Node): boolean {
  return /^(?:process\.env|import\.meta\.env|env)\b/.test(module.text.slice(node.start ?? 0, node.end ?? 0))
}

/** Whether a statement may return from the function it stands in. */
export function returns(statement: t.Statement): boolean {
  return JSON.stringify(statement, (key, value: unknown) => (key === 'loc' ? undefined : value)).includes(
    '"ReturnStatement"',
  )
}

/** Folds at most once; a value that refers to itself is said to. */
export function once(make: Lazy): Lazy {
  let state: Folded | 'busy' | null = null
  return () => {
    if (state === 'busy')
      return { kind: 'computed', expression: '(refers to itself)', at: { file: '', line: 1, column: 1 } }
    if (state === null) {
      state = 'busy'
      state = make()
    }
    return state
  }
}
