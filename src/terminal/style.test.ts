import fc from 'fast-check'
import { expect, test } from 'vitest'
import { cut, cutMiddle, styleFor, wrap } from './style.ts'

test('wrapped lines keep to the width, and lose no word', () => {
  fc.assert(
    fc.property(
      fc.array(fc.stringMatching(/^[a-z]{1,12}$/), { minLength: 1, maxLength: 40 }),
      fc.integer({ min: 12, max: 80 }),
      (words, width) => {
        const lines = wrap(words.join(' '), width)
        for (const line of lines) expect(line.length).toBeLessThanOrEqual(width)
        expect(lines.join(' ')).toBe(words.join(' '))
      },
    ),
  )
})

test('a word longer than the line stands alone', () => {
  expect(wrap('a bbbbbbbbbb c', 4)).toEqual(['a', 'bbbbbbbbbb', 'c'])
})

test('cutting keeps the width and shows where', () => {
  expect(cut('abcdef', 4)).toBe('abc…')
  expect(cut('abcd', 4)).toBe('abcd')
  expect(cutMiddle('abcdefgh', 5)).toBe('ab…gh')
  expect(cut('a\u001b[31mb', 20)).toBe('a\ufffd[31mb')
})
test('without a terminal there is no colour and the usual width; with one, its own within bounds', () => {
  expect(styleFor({}, true)).toMatchObject({ width: 100 })
  expect(styleFor({}, true).colors.red('x')).toBe('x')
  expect(styleFor({ isTTY: true, columns: 20 }, false).width).toBe(60)
  expect(styleFor({ isTTY: true, columns: 300 }, false).width).toBe(140)
})
