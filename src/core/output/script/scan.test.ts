import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { type Options, parse, tokTypes } from 'acorn'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { scan } from './scan.ts'

/** The bounds of every string and template part, as acorn's parser sees them. */
function wanted(code: string): string[] | null {
  for (const sourceType of ['module', 'script'] as const) {
    const found: string[] = []
    const options: Options = {
      ecmaVersion: 'latest',
      sourceType,
      allowHashBang: true,
      allowReturnOutsideFunction: true,
      onToken: ({ type, start, end }) => {
        if (type === tokTypes.string) found.push(`${start + 1}-${end - 1}`)
        else if (type === tokTypes.template || type === tokTypes.invalidTemplate)
          found.push(`${start}-${end}`)
      },
    }
    try {
      parse(code, options)
      return found
    } catch {
      // Not of this kind; perhaps of the other.
    }
  }
  return null
}

function got(code: string): string[] {
  const found: string[] = []
  scan(code, (start, end) => found.push(`${start}-${end}`))
  return found
}

test.each([
  ['a division after a call', 'f(x)/2/"s"'],
  ['an expression after if (…)', 'if(x)/"/.test(y)&&"s"'],
  ['a division after a function expression', 'x=function(){}/2/"s"'],
  ['an expression after a function declaration', 'function f(){}/"/.test("s")'],
  ['an expression after a block', '{}/"/.test("s")'],
  ['a division after an object', 'x={}/2/"s"'],
  ['an expression after return', 'function f(){return/"/.test("s")}'],
  ['a division after a postfix', 'i++/2/"s"'],
  ['an expression after a keyword as a member', 'x.return/2/"s"'],
  ['templates in templates', '`a${`b${"c"}d`}e${{x:`f`}.x}g`'],
  ['an object in a hole', '`${{a:{b:"}"}}}`'],
  ['a class in square brackets', 'x=/[/"\\]]/g,"s"'],
  ['comments with quotes', '// it\'s\n/* "no" */"yes"'],
  ['escapes', '"a\\"b" + \'c\\\\\' + `d\\`e\\${f`'],
  ['a string that goes on behind a line break', '"a\\\r\nb","c"'],
  ['an arrow with a body', 'const f=()=>{}\n/"/.test("s")'],
  ['a division after a template', '`a`/2/"s"'],
  ['for … of before an expression', 'for(const x of/"/.exec(y))"s"'],
  ['a case label', 'switch(x){case/"/:"s";break;default:{}/"/.test("t")}'],
  ['a number with an exponent', '1e+5/2/"s";.5/"s".length'],
  ['optional access and a condition', 'a?.b/2/"s";a?.5:"t"'],
  ['a private name', 'class A{#b="s";c(){return this.#b/2/"t"}}'],
])('%s', (_, code) => {
  expect(wanted(code)).not.toBeNull()
  expect(got(code)).toEqual(wanted(code))
})

/** Installed packages' own files: real bundles, old and new, minified and not. */
function realFiles(least: number, most: number): string[] {
  const found: string[] = []
  const enter = (directory: string): void => {
    for (const entry of readdirSync(directory, { withFileTypes: true })) {
      const path = join(directory, entry.name)
      if (entry.isDirectory()) enter(path)
      else if (entry.isFile() && /\.m?js$/.test(entry.name)) found.push(path)
    }
  }
  enter('node_modules')
  return found.filter((path) => {
    const { length } = readFileSync(path)
    return length >= least && length <= most
  })
}

test('real bundles: the same strings and templates as a full parser, at the same offsets', () => {
  let bytes = 0
  let files = 0
  for (const path of realFiles(30_000, 2_000_000)) {
    // A full parser reads a few megabytes a second.
    if (bytes > 16_000_000) break
    const code = readFileSync(path, 'utf8')
    const expected = wanted(code)
    if (!expected) continue
    const found = got(code)
    const wrong = found.findIndex((bounds, index) => bounds !== expected[index])
    expect(wrong, `${path}: ${found[wrong]} should be ${expected[wrong]}`).toBe(-1)
    expect(found.length, path).toBe(expected.length)
    bytes += code.length
    files++
  }
  expect(files).toBeGreaterThan(50)
  expect(bytes).toBeGreaterThan(10_000_000)
})

test('puzzles of division, expression, template and comment', () => {
  const piece = fc.constantFrom(
    ...[
      'a',
      '1',
      '"s"',
      "'t'",
      '`u`',
      '`v${',
      '}',
      '/',
      '/x/',
      '/["/]/g',
      '(',
      ')',
      '{',
      '}',
      '[',
      ']',
      ';',
      ',',
    ],
    ...['+', '++', '=', '=>', '?', ':', '.', ' ', '\n', 'if', 'return', 'typeof', 'function', 'of', 'class'],
    ...['// "c"\n', "/* ' */", 'x:', 'else', 'for', 'while', 'var', '!', '...', '()=>{}', 'function(){}'],
  )
  let valid = 0
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 14 }), (pieces) => {
      const code = pieces.join(' ')
      const expected = wanted(code)
      if (!expected) return
      valid++
      expect(got(code)).toEqual(expected)
    }),
    { numRuns: 30_000, seed: 7 },
  )
  expect(valid).toBeGreaterThan(500)
})

test('whatever it is given, it ends and stays within bounds', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 200 }), (code) => {
      scan(code, (start, end) => {
        expect(start).toBeLessThanOrEqual(end)
        expect(end).toBeLessThanOrEqual(code.length + 1)
      })
    }),
  )
})
