import type { Reference } from '../../model/reference.ts'

/** What may stand between two statements. A comment of a licence is skipped in one step. */
const between = /(?:\s+|\/\*[\s\S]*?\*\/|\/\/[^\n\r]*|;|(["'])use strict\1)/y
/** An import, or an export from elsewhere, up to its module's name. */
const statement =
  /(?:import|export)(?:\s*(?:[\w$]+\s*,\s*)?(?:\{[^{}"'`]*\}|\*(?:\s*as\s+[\w$]+)?)\s*from|\s+[\w$]+\s+from|)\s*(["'])([^"'\n\r]*)\1/y
const attributes = /\s*(?:with|assert)\s*\{[^{}]*\}/y
/** A name that is no URL: one that only an import map knows (HTML standard, "resolve a module specifier"). */
const bare = /^(?!\.{0,2}\/)(?![a-z][a-z\d+.-]*:)./i

/**
 * The modules that a script imports by a bare name, from its first statements, where bundlers and people write them. What stands
 * behind other code is not looked for.
 */
export function bareImports(code: string): Reference[] {
  const found: Reference[] = []
  for (let at = 0; at < code.length; ) {
    const skipped = matchAt(between, code, at)
    if (skipped) {
      at = between.lastIndex
      continue
    }
    const match = matchAt(statement, code, at)
    if (!match) break
    at = statement.lastIndex
    const [, , raw = ''] = match
    if (bare.test(raw))
      found.push({ kind: 'import', raw, against: 'map', offset: at - 1 - raw.length, length: raw.length })
    if (matchAt(attributes, code, at)) at = attributes.lastIndex
  }
  return found
}

function matchAt(pattern: RegExp, code: string, at: number): RegExpExecArray | null {
  pattern.lastIndex = at
  return pattern.exec(code)
}
