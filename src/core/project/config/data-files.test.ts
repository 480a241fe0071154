import fc from 'fast-check'
import { expect, test } from 'vitest'
import { SyntaxProblem } from '../../syntax/parse.ts'
import { member } from '../../syntax/value.ts'
import { foldData } from './data-files.ts'

test.each<[string, string, readonly string[], unknown, number]>([
  ['a.json', '{\n  "a": { "b": "x" }\n}', ['a', 'b'], 'x', 2],
  ['a.jsonc', '{ // note\n  "a": 1,\n}', ['a'], 1, 2],
  ['a.yaml', 'a:\n  b: x\n', ['a', 'b'], 'x', 2],
  ['a.yml', 'd: &d\n  k: v\na:\n  <<: *d\n  b: true\n', ['a', 'b'], true, 5],
  ['a.toml', 'x = 1\n[a]\nb = "x"\n', ['a', 'b'], 'x', 3],
  ['a.toml', '[a.c]\n"b" = 2026-11-24\n', ['a', 'c', 'b'], '2026-11-24T00:00:00.000Z', 2],
  // Keys that only a parser finds where they are.
  ['a.toml', 'note = """\n[a]\nb = "no"\n"""\n[a]\nb = "x"\n', ['a', 'b'], 'x', 6],
  ['a.toml', 'x = 1\na = {\tb = "x", c = [\n1] }\n', ['a', 'b'], 'x', 2],
  ['a.toml', '\na.b = "x"\na.c = 1\n', ['a', 'b'], 'x', 2],
  ['a.toml', '[z]\n"d.e" = 1\n[a]\n\n"d.e".b = "x"\n', ['a', 'd.e', 'b'], 'x', 5],
])('%s: %j', async (file, text, path, value, line) => {
  const found = member(await foldData(file, text), ...path)
  if (found?.kind !== 'value') throw new Error('not found')
  expect(String(found.value).slice(0, 10)).toBe(String(value).slice(0, 10))
  expect(found.at).toMatchObject({ file, line })
})

test('tables in a list of TOML keep their own places', async () => {
  const text = 'a = 1\n[[rules]]\nfrom = "/x"\n[[rules]]\nfrom = "/y"\n  [rules.more]\n  deep = true\n'
  const rules = member(await foldData('a.toml', text), 'rules')
  if (rules?.kind !== 'list') throw new Error('no list')
  expect(rules.items.map((item) => member(item, 'from')?.at)).toMatchObject([
    { line: 3, column: 1 },
    { line: 5, column: 1 },
  ])
  expect(member(rules.items[1] ?? null, 'more', 'deep')?.at).toMatchObject({ line: 7, column: 3 })
})

test('broken TOML is said with its place', async () => {
  await expect(foldData('a.toml', 'x = 1\n= 2\n')).rejects.toThrow(
    /^a\.toml is not valid TOML: .+ at line 2, column \d+\.$/,
  )
})

test('other files are no data', async () => {
  expect(await foldData('a.ts', 'export default {}')).toBeNull()
})

test.each(['a.json', 'a.yaml', 'a.toml'])(
  'hostile %s ends in a value, nothing, or one clear sentence',
  async (file) => {
    const piece = fc.constantFrom(
      '{',
      '}',
      '[',
      ']',
      ':',
      '"',
      "'",
      '&a ',
      '*a',
      '<<',
      '- ',
      '\n',
      '  ',
      '=',
      'key',
      '!!js/function',
      '__proto__',
      '\u0000',
      '#',
      '|',
    )
    await fc.assert(
      fc.asyncProperty(fc.array(piece, { maxLength: 24 }), async (pieces) => {
        try {
          await foldData(file, pieces.join(''))
        } catch (error) {
          expect(error).toBeInstanceOf(SyntaxProblem)
          expect((error as SyntaxProblem).message).toMatch(/^a\.\w+ is not valid/)
        }
      }),
      { numRuns: 2_000, seed: 3 },
    )
    expect(({} as Record<string, unknown>).toString).toBe(Object.prototype.toString)
  },
)
