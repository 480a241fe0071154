import fc from 'fast-check'
import { expect, test } from 'vitest'
import { WordList } from './words.ts'

const words = ['sk-', 'secret', 'SG.', '}.', '}={', '.hash', 'path', 'path:', 'xoxb-', '_pat_', 'secretary']
const list = new WordList(words)

/** Every offset of a word, found one by one. */
function offsetsOf(text: string, word: string): number[] {
  return [...text].length === 0
    ? []
    : Array.from(text, (_, at) => at).filter((at) => text.startsWith(word, at))
}

test('every place of every word is found, and nothing else', () => {
  const piece = fc.oneof(
    fc.constantFrom(
      ...words,
      ...words.map((word) => word.toUpperCase()),
      ...words.map((word) => word.slice(0, -1)),
    ),
    fc.string({ unit: 'binary', maxLength: 4 }).filter((text) => !/[\ud800-\udfff]/.test(text)),
  )
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
      const text = pieces.join('')
      const mentions = list.in(text)
      const small = text.replace(/[A-Z]/g, (letter) => letter.toLowerCase())
      for (const word of words) {
        expect(mentions.of(word)).toEqual(offsetsOf(text, word))
        expect(mentions.ofAnyCase(word)).toEqual(offsetsOf(small, word.toLowerCase()))
        expect(mentions.has(word)).toBe(text.includes(word))
      }
    }),
  )
})

test('a text that is gone through after another one is found in by itself', () => {
  expect(list.in('sk-a sk-b').of('sk-')).toEqual([0, 5])
  expect(list.in('SG.').of('sk-')).toEqual([])
  expect(list.in('').of('sk-')).toEqual([])
  expect(list.in('}.').of('}.')).toEqual([0])
})

test('words in order, and words that nobody asked for', () => {
  expect(list.in('path xoxb- sk-').ofAll(['sk-', 'path'])).toEqual([0, 11])
  expect(() => list.in('a').of('other')).toThrow('"other" was not looked for')
  expect(() => new WordList(['a'])).toThrow('too short')
})
