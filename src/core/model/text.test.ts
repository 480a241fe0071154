import { describe, expect, test } from 'vitest'
import { bytesInWords, decode, excerptAt, nearest, positionAt, positionsIn, printable } from './text.ts'

test.each([
  ['', 0, { line: 1, column: 1 }],
  ['one\ntwo', 3, { line: 1, column: 4 }],
  ['one\ntwo', 4, { line: 2, column: 1 }],
  ['one\n\n\nfour', 7, { line: 4, column: 2 }],
])('the position in %j of offset %i', (text, offset, expected) => {
  expect(positionAt(text, offset)).toEqual(expected)
  expect(positionsIn(text)(offset)).toEqual(expected)
})

test('an excerpt of a one-line bundle keeps the middle and says that the line goes on', () => {
  const text = `${'a'.repeat(500)}HERE${'b'.repeat(500)}`
  const excerpt = excerptAt(text, 500, 4)
  expect(excerpt).toContain('HERE')
  expect(excerpt).toHaveLength(82)
  expect(excerpt.startsWith('…') && excerpt.endsWith('…')).toBe(true)
})

test('an excerpt never crosses its line', () => {
  expect(excerptAt('before\n  the line\nafter', 13, 4)).toBe('the line')
})

test('control characters and direction marks cannot reach a terminal', () => {
  expect(printable('a\u001b[31mb\u202ec\u0000d\u009b')).toBe('a\ufffd[31mb\ufffdc\ufffdd\ufffd')
})

test.each([
  ['fallbck', ['files', 'fallback'], 'fallback'],
  ['file', ['files', 'fallback'], 'files'],
  ['apache', ['files', 'fallback'], null],
  ['jsno', ['text', 'json'], 'json'],
])('the nearest of what is known to %s', (word, known, expected) => {
  expect(nearest(word, known)).toBe(expected)
})

test.each([
  [0, '0 B'],
  [999, '999 B'],
  [1_000, '1.0 kB'],
  [389_412, '389 kB'],
  [60_000_000, '60.0 MB'],
])('%i bytes are %s', (bytes, expected) => {
  expect(bytesInWords(bytes)).toBe(expected)
})

describe('the encoding of a built text', () => {
  const bytesOf = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0))
  test.each<[string, string, string]>([
    ['<meta charset="iso-8859-1"><img src="\u00e5.png">', '\u00e5.png', 'Latin-1 as declared'],
    [
      '<meta http-equiv="content-type" content="text/html; charset=windows-1251">\u00e5',
      '\u0435',
      'by an equivalent of a header',
    ],
    ['@charset "iso-8859-1";a{background:url(\u00e5.png)}', '\u00e5.png', 'of a style sheet'],
    ['<meta charset="utf-16"><p>\u00c3\u00a5', '\u00e5', 'of two bytes, which it can not be'],
    ['<meta charset="none-such"><p>\u00c3\u00a5', '\u00e5', 'that nobody knows'],
    ['<p>\u00c3\u00a5', '\u00e5', 'UTF-8 where none is'],
    ['x="<meta charset=iso-8859-1>\u00c3\u00a5"', '\u00e5', 'of a script that writes a declaration'],
  ])('%j holds %j: %s', (written, expected) => {
    expect(decode(bytesOf(written))).toContain(expected)
  })
})
