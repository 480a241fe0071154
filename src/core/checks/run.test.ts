import { expect, test } from 'vitest'
import { UsageError } from '../model/errors.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { check } from '../pipeline/check.ts'
import { type Check, defineCheck } from './check.ts'
import { inOrder } from './order.ts'

const house = (code: string, after: readonly string[] = [], title = code): Check =>
  defineCheck({
    code,
    severity: 'note',
    title,
    after,
    run: () => [],
  })
const codes = (...checks: Check[]): string[] => inOrder(checks).map(({ code }) => code)

test('each runs after those it names, and after all others with a star', () => {
  expect(codes(house('a', ['c']), house('b', ['*']), house('c', ['d']), house('d'))).toEqual([
    'd',
    'c',
    'a',
    'b',
  ])
})

test.each<[string, readonly Check[], string]>([
  [
    'the same code twice',
    [house('a/b', [], 'One'), house('a/b', [], 'Other')],
    'Two checks have the name a/b: "One" and "Other".',
  ],
  [
    'a name that there is none of',
    [house('asset/missing'), house('a/b', ['asset/mising'])],
    'The check a/b runs after asset/mising. There is no check "asset/mising". Did you mean asset/missing?',
  ],
  [
    'a circle',
    [house('a', ['b']), house('b', ['c']), house('c', ['a'])],
    'The checks go in a circle: a runs after b runs after c runs after a.',
  ],
])('%s is an error that names both', (_, checks, message) => {
  expect(() => inOrder(checks)).toThrow(UsageError)
  expect(() => inOrder(checks)).toThrow(message)
})

test('a check of one’s own that throws is named as its author’s', async () => {
  const throws: Check = {
    ...house('house/tide'),
    run: () => {
      throw new TypeError('no tide tables\n  at sea')
    },
  }
  const checking = check(new MemoryFolder({ 'index.html': '<p>' }), { checks: [throws] })
  await expect(checking).rejects.toThrow(UsageError)
  await expect(checking).rejects.toThrow(
    'The check house/tide does not come with this program, and it threw an error: no tide tables',
  )
})
