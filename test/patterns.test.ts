import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from '@babel/parser'
import { analyse } from 'scslre'
import { expect, test } from 'vitest'

const root = join(import.meta.dirname, '..', 'src')

/** The regular expressions of a source, as they are written. */
function patternsIn(file: string): { pattern: string; flags: string; line: number }[] {
  const found: { pattern: string; flags: string; line: number }[] = []
  const text = readFileSync(join(root, file), 'utf8')
  const { program } = parse(text, { sourceType: 'module', plugins: ['typescript', 'jsx'] })
  const pending: unknown[] = [program]
  while (pending.length > 0) {
    const node = pending.pop()
    if (typeof node !== 'object' || node === null) continue
    const { type, pattern, flags, loc } = node as Record<string, unknown>
    if (type === 'RegExpLiteral')
      found.push({
        pattern: String(pattern),
        flags: String(flags),
        line: (loc as { start: { line: number } }).start.line,
      })
    pending.push(...Object.values(node))
  }
  return found
}

test('no pattern of the sources takes time by the square of what it reads, or more', () => {
  const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
    (file) => file.endsWith('.ts') && !file.endsWith('.test.ts'),
  )
  const slow: string[] = []
  let looked = 0
  for (const file of files) {
    for (const { pattern, flags, line } of patternsIn(file)) {
      looked++
      const { reports } = analyse({ source: pattern, flags })
      if (reports.length > 0)
        slow.push(`${file}:${line} ${reports.map(({ type }) => type).join()} ${pattern}`)
    }
  }
  expect(looked).toBeGreaterThan(700)
  expect(slow).toEqual([])
})
