import { type ParseError, parse } from 'jsonc-parser'
import type * as z from 'zod'
import { UsageError } from './errors.ts'
import { isTooDeep } from './json.ts'
import { nearest } from './text.ts'

/**
 * Parses JSON of a schema, comments and trailing commas passed over.
 * @param what begins the sentence that tells what is wrong
 * @param keys all keys that are known, to name the nearest
 * @throws {UsageError}
 */
export function parseShaped<T>(what: string, schema: z.ZodType<T>, text: string, keys: readonly string[]): T {
  if (isTooDeep(text)) throw new UsageError(`${what} nests too deeply to be read.`)
  const errors: ParseError[] = []
  // People comment on what they wrote.
  const value: unknown = parse(text, errors, { allowTrailingComma: true })
  if (errors.length > 0) throw new UsageError(`${what} is not JSON.`)
  return checkShaped(what, schema, value, keys)
}

/** The same for a value that is there already. @throws {UsageError} when it has another shape. */
export function checkShaped<T>(
  what: string,
  schema: z.ZodType<T>,
  value: unknown,
  keys: readonly string[],
): T {
  const parsed = schema.safeParse(value)
  if (parsed.success) return parsed.data
  throw new UsageError(`${what} ${describe(parsed.error.issues[0], keys)}`)
}

function describe(issue: z.core.$ZodIssue | undefined, keys: readonly string[]): string {
  if (issue?.code === 'unrecognized_keys') {
    const [key = ''] = issue.keys
    const near = nearest(key, keys)
    return `has a key "${key}" that is not known.${near ? ` Did you mean ${near}?` : ''}`
  }
  const where = issue && issue.path.length > 0 ? `has a wrong "${issue.path.join('.')}"` : 'is wrong'
  return `${where}: ${issue?.message ?? 'it has another shape'}.`
}
