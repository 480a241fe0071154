import { expect, test } from 'vitest'
import { hasDeepTemplates } from './deep-templates.ts'
import { expressionAt, firstErrorIn } from './parse.ts'

test.each<[string, string, boolean]>([
  ['templates in templates', '`${'.repeat(2_000), true],
  ['templates in templates, all closed', `${'`${'.repeat(300)}a${'}`'.repeat(300)}`, true],
  ['many, one after the other', 'a(`b${c}d`);'.repeat(10_000), false],
  ['braces', '{'.repeat(2_000), false],
  ['a few in one another', '`${`${`${a}`}`}`', false],
])('%s', (_, code, isDeep) => {
  expect(hasDeepTemplates(code)).toBe(isDeep)
})

test('a script of templates in templates ends no process', () => {
  const code = '`${'.repeat(20_000)
  expect(firstErrorIn(code)).toBeNull()
  expect(expressionAt(code, 0, code.length)).toBeNull()
})
