import { expect, test } from 'vitest'
import { isPassedInstead } from './passed-instead.ts'

const url = "new URL('tide_bg.wasm', import.meta.url)"
const body = (test: string, before = 'async function load(t) {'): string => `${before} ${test} return go(t) }`

/** What asks for the module, then whether it is never asked for. */
test.each<[string, string, boolean]>([
  ['called without', `${body(`if (typeof t === 'undefined') { t = ${url} }`)} load()`, false],
  ['called with blanks alone', `${body(`if (t === undefined) { t = ${url}; }`)} await load( )`, false],
  ['exported for others to call', `export ${body(`typeof t>"u"&&(t=${url});`)}`, false],
  ['given by all calls', `${body(`typeof t > "u" && (t = ${url});`)} load(bytes), load(other)`, true],
  ['given by one call of two', `${body(`void 0===t&&(t=${url});`)} load(bytes); load()`, false],
  ['a method of the name is another', `${body(`void 0===t&&(t=${url});`)} tide.load(); load(bytes)`, true],
  ['no default', `${body(`t = ${url};`)} load(bytes)`, false],
  ['a default of another variable', `${body(`typeof s>"u"&&(t=${url});`)} load(bytes)`, false],
  [
    'emitted under a hashed name',
    `var m="./tide_bg-BLJXNNQB.wasm"; export ${body(`typeof t>"u"&&(t=${url});`)}`,
    true,
  ],
  [
    'another module is emitted',
    `var m="./gale_bg-BLJXNNQB.wasm"; export ${body(`typeof t>"u"&&(t=${url});`)}`,
    false,
  ],
  [
    'inside the code',
    `var m="data:application/wasm;base64,AGFz"; export ${body(`t==null&&(t=${url});`)}`,
    true,
  ],
])('a module that is %s', (_, code, expected) => {
  const start = code.indexOf('tide_bg.wasm')
  expect(isPassedInstead(code, start, 'tide_bg.wasm')).toBe(expected)
})
