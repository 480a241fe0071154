import { expect, test } from 'vitest'
import * as z from 'zod'
import { UsageError } from './errors.ts'
import { parseShaped } from './shaped.ts'

const shape = z.strictObject({ site: z.string().optional() })

test.each<[string, string, RegExp | null]>([
  ['what has the shape, with a comment', '{ "site": "https://skerryline.example/", /* live */ }', null],
  ['another key', '{ "sight": "x" }', /a key "sight" that is not known\./],
  ['what is no JSON', '{ "site" }', /^The file is not JSON\.$/],
  ['what nests too deeply', '{"site":'.repeat(100_000), /^The file nests too deeply to be read\.$/],
])('%s', (_, text, message) => {
  const read = (): unknown => parseShaped('The file', shape, text, ['site'])
  if (message === null) expect(read()).toEqual({ site: 'https://skerryline.example/' })
  else {
    expect(read).toThrow(UsageError)
    expect(read).toThrow(message)
  }
})
