import { applyEdits, modify, type ParseError, parse } from 'jsonc-parser'
import { UsageError } from '../model/errors.ts'
import { jsonTree } from '../model/json.ts'
import type { Waiver } from '../release/waivers.ts'

const form = { formattingOptions: { insertSpaces: true, tabSize: 2 } }

/**
 * A configuration file's text with one more waiver, all else as it was: order, comments, blank lines.
 * @throws {UsageError} when the text is no JSON object
 */
export function withWaiver(file: string, text: string, waiver: Waiver): string {
  const errors: ParseError[] = []
  const value: unknown = parse(text, errors, { allowTrailingComma: true })
  if (errors.length > 0 || typeof value !== 'object' || value === null || Array.isArray(value)) {
    throw new UsageError(`The configuration ${file} is not JSON.`)
  }
  const { where, until } = waiver
  const written = {
    code: waiver.code,
    ...(where ? { where } : {}),
    reason: waiver.reason,
    ...(until ? { until } : {}),
  }
  const root = jsonTree(text)
  const list = root?.children?.find((member) => member.children?.[0]?.value === 'waivers')?.children?.[1]
  const edits =
    list?.type === 'array'
      ? modify(text, ['waivers', list.children?.length ?? 0], written, { ...form, isArrayInsertion: true })
      : modify(text, ['waivers'], [written], form)
  return applyEdits(text, edits)
}
