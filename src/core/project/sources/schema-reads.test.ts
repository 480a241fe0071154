import { expect, test } from 'vitest'
import { schemaReads } from './schema-reads.ts'
import { Sources } from './sources.ts'

function named(text: string, file = 'src/env.ts', at = 'src/env.ts'): string[] {
  const sources = new Sources(new Map([[file, text]]))
  const { reads, traces } = schemaReads(sources, [{ file: at, line: 1, column: 1 }], ['VITE_'], 5)
  expect(traces.map(({ name }) => name)).toEqual(reads.flatMap(({ name, guarded }) => (guarded ? [] : name)))
  expect(traces.every(({ kind, read }) => kind === 'object' && read >= 5)).toBe(true)
  return reads.map(
    ({ name, place, guarded }) => `${name}:${place.line}:${place.column}${guarded ? ' guarded' : ''}`,
  )
}

test.each<[string, string, string[]]>([
  ['a key', 'z.object({ VITE_API: z.string().url() }).parse(import.meta.env)', ['VITE_API:1:12']],
  ['a key that may be missing', 'z.object({ VITE_API: z.string().optional() })', ['VITE_API:1:12 guarded']],
  ['a key with a default', 'v.object({ VITE_API: v.optional(v.string(), "x") })', ['VITE_API:1:12 guarded']],
  ['a key of a client', 'createEnv({\n  client: { VITE_API: z.string() } })', ['VITE_API:2:13']],
  ['a key that is no public name', 'z.object({ API: z.string() })', []],
  ['a key with the value itself', 'f({ VITE_API: import.meta.env.VITE_API, VITE_B: "x" })', []],
  ['a name that is given', "get('VITE_API')", ['VITE_API:1:6']],
  ['a name that is given, and put before a text', "fetch(get('VITE_API') + '/v1')", ['VITE_API:1:12']],
  ['a name that is given with a default', "get('VITE_API', 'x')", ['VITE_API:1:6 guarded']],
  ['a name with a default behind it', "get('VITE_API') ?? 'x'", ['VITE_API:1:6 guarded']],
  [
    'the rest of a name that is given',
    "const env = (name, other) => import.meta.env['VITE_' + name] ?? other\nenv('API')\nenv('STAGE', 'x')\nother.env2('B')",
    ['VITE_API:2:6', 'VITE_STAGE:3:6 guarded'],
  ],
  [
    'the rest of a name in a template',
    'export function env(key) {\n  return import.meta.env[`VITE_${key}`]\n}\nconst api = env("API") ?? ""',
    ['VITE_API:4:18 guarded'],
  ],
  [
    'the rest of a name that is not public',
    "const env = (n) => import.meta.env['SECRET_' + n]\nenv('API')",
    [],
  ],
  ['what can not be parsed', 'z.object({ VITE_API: z.string()', []],
])('%s', (_, text, expected) => {
  expect(named(text)).toEqual(expected)
})

test('keys are of a schema where the environment is handed on, names wherever they are given', () => {
  expect(named('z.object({ VITE_API: z.string() })', 'src/other.ts')).toEqual([])
  expect(named("get('VITE_API')", 'src/other.ts')).toEqual(['VITE_API:1:6'])
  expect(schemaReads(new Sources(new Map([['a.ts', "get('VITE_API')"]])), [], ['VITE_'], 0).reads).toEqual([])
})
