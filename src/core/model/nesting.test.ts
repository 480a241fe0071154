import { expect, test } from 'vitest'
import { tooDeepAt } from './nesting.ts'

test.each<[string, string, boolean]>([
  ['open brackets', '['.repeat(100_000), true],
  ['open braces on lines', '{\n'.repeat(1_000), true],
  ['lists in lists', `a: ${'- '.repeat(1_000)}x`, true],
  ['a name of many steps', `${'a.'.repeat(1_000)}a = 1`, true],
  ['many that are closed', '[]{}'.repeat(100_000), false],
  ['points in a text', `a = "${'.'.repeat(1_000)}"`, false],
  ['a line of dashes behind a mark', `# ${'-'.repeat(1_000)}`, false],
  ['many short lines', 'a.b.c = [1, 2]\n'.repeat(10_000), false],
])('%s: %j', (_, text, isTooDeep) => {
  expect(tooDeepAt(text) !== null).toBe(isTooDeep)
})
