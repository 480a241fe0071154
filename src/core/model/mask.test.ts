import { expect, test } from 'vitest'
import { Mask } from './mask.ts'
import { normaliseBase } from './site.ts'

test('a value that is too long for a pattern is covered all the same, beside thousands of others', () => {
  const long = '$'.repeat(80_000)
  const many = Array.from({ length: 5_000 }, (_, index): [string, string] => [
    `A${index}`,
    `value-${index}-x7f`,
  ])
  const mask = new Mask([['LONG', long], ...many])
  expect(mask.named(`before ${long} after`)).toBe('before ${LONG} after')
  expect(mask.named('a value-4321-x7f b')).toBe('a ${A4321} b')
  expect(mask.cover('value-17-x7f')).toBe('•'.repeat(12))
})

test.each([
  ['b', '/b/'],
  ['/b/../c', '/c/'],
  ['/'.repeat(70_000), '/'],
  ['//[', '/'],
])('as a base path, %j is one of this host', (written, expected) => {
  expect(normaliseBase(written)).toBe(expected)
})
