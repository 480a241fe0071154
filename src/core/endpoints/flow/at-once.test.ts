import { expect, test } from 'vitest'
import { builtTree } from '../../syntax/tree.ts'
import { settledAtOnce } from './at-once.ts'
import { followText } from './follow.ts'

const url = 'http://localhost'

test.each([
  ['const o=w&&window.location.href||"http://localhost";use(o)', 'after own address'],
  ['x=window.location.origin??`http://localhost`', 'after own address'],
  ['if(e.host==="http://localhost"&&f)g()', 'compared'],
  ['h=e=="http://localhost"?1:2', 'compared'],
  ['if("http://localhost"!==a.href)b()', 'compared'],
  ['switch(a){case"http://localhost":b()}', 'compared'],
])('%s is settled as a tree would: %s', (code, reason) => {
  const offset = code.indexOf(url)
  expect(settledAtOnce(code, offset)).toBe(reason)
  const tree = builtTree(code)
  const whole = tree && followText(code, tree, offset)
  expect([...(whole?.harmless ?? [])]).toEqual([reason])
  expect([...(whole?.sinks ?? [])]).toEqual([])
})

test.each([
  'fetch("http://localhost")',
  'a=location.href||"http://localhost"+p',
  'a=b+"http://localhost"===c',
  'a===`http://localhost/${id}`',
  'a="http://localhost"',
  'a=>"http://localhost"',
  'e<="http://localhost"',
  'a==="http://localhost"+b',
  'mylocation||"http://localhost"',
  'f(a===c,"http://localhost")',
])('%s is left to a tree', (code) => {
  expect(settledAtOnce(code, code.indexOf(url))).toBeNull()
})
