import type { ParseError } from 'jsonc-parser'
import type { Break } from '../model/facts.ts'
import { isTooDeep, jsonTree } from '../model/json.ts'

/** Larger data is not parsed; UTF-16 units. */
const largest = 5_000_000

/**
 * Where a JSON file stops being one; null where it is whole. A file of several values, one a line, and one with comments are for a
 * reader of their own.
 */
export function dataBreakIn(text: string): Break | null {
  if (text.length > largest || text.trim() === '' || isJson(text)) return null
  const errors: ParseError[] = []
  jsonTree(text, errors)
  const [first] = errors
  const isOfLines = text
    .trim()
    .split('\n')
    .every((line) => line.trim() === '' || isJson(line))
  if (isOfLines) return null
  // What nests too deeply to be looked at is broken somewhere, or it would have been read. Comments are for another reader.
  if (first === undefined) return isTooDeep(text) ? { offset: 0, length: 1, isCut: false } : null
  const end = Math.max(0, text.trimEnd().length - 1)
  return { offset: Math.min(first.offset, end), length: 1, isCut: first.offset > end }
}

function isJson(text: string): boolean {
  try {
    JSON.parse(text)
    return true
  } catch {
    return false
  }
}
