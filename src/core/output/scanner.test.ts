import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { type Options, parse, tokTypes } from 'acorn'
import fc from 'fast-check'
import { expect, test, vi } from 'vitest'
import { place, scan } from './scanner.ts'

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
  const { texts } = scan(code)
  return Array.from({ length: texts.length / 3 }, (_, i) => `${texts[i * 3]}-${texts[i * 3 + 1]}`)
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
      const { texts } = scan(code)
      for (let i = 0; i < texts.length; i += 3) {
        expect(texts[i]).toBeLessThanOrEqual(texts[i + 1] ?? 0)
        expect(texts[i + 1]).toBeLessThanOrEqual(code.length + 1)
      }
    }),
  )
})

test('bytes and what they were decoded to give the same, whatever they are', () => {
  const decoder = new TextDecoder()
  const bytes = fc.oneof(
    fc.uint8Array({ maxLength: 60 }),
    fc.string({ unit: 'binary', maxLength: 40 }).map((text) => new TextEncoder().encode(text)),
    fc.string({ unit: 'grapheme', maxLength: 40 }).map((text) => new TextEncoder().encode(`"é${text}"`)),
    // Byte order marks, halves of characters, and forms that are too long.
    fc
      .array(
        fc.constantFrom(
          'efbbbf',
          'eda080',
          'c080',
          'e08080',
          'f0808080',
          'f4908080',
          '22',
          '612f',
          'f09f9880',
        ),
      )
      .map((parts) => Uint8Array.from(Buffer.from(parts.join(''), 'hex'))),
  )
  fc.assert(
    fc.property(bytes, (given) => {
      const text = decoder.decode(given)
      scan('another')
      const expected = scan(text)
      scan('another')
      place(text, given)
      expect(scan(text)).toEqual(expected)
    }),
    { numRuns: 5_000 },
  )
})

test('a text far longer than the one before, and one far shorter', () => {
  const long = `${'x;'.repeat(400_000)}"end"`
  expect(got('"a"')).toEqual(['1-2'])
  expect(got(long)).toEqual(['800001-800004'])
  expect(got('"b" + "c"')).toEqual(['1-2', '7-8'])
  expect(got('"",'.repeat(300_000))).toHaveLength(300_000)
})

test('a page whose policy forbids WebAssembly is told what to allow', async () => {
  class Forbidden {
    constructor() {
      throw new Error('Wasm code generation disallowed by embedder')
    }
  }
  vi.resetModules()
  vi.stubGlobal('WebAssembly', { Module: Forbidden })
  const { scan: fresh } = await import('./scanner.ts')
  expect(() => fresh('"a"')).toThrow("Add 'wasm-unsafe-eval' to script-src")
  vi.unstubAllGlobals()
  expect(fresh('"a"').texts).toHaveLength(3)
})

test('the first text of a thread may end anywhere in a page of memory', async () => {
  for (let size = 163_400; size < 163_900; size += 25) {
    const text = `${'x;'.repeat(size / 2)}"end"`
    vi.resetModules()
    const fresh = await import('./scanner.ts')
    fresh.place(text, new TextEncoder().encode(text))
    expect(fresh.scan(text).texts).toHaveLength(3)
  }
})
