import { expect, test } from 'vitest'
import { guarded, withoutControls } from './guard.ts'

test.each([
  [
    'colours and a cleared line are our own',
    '\u001b[31mred\u001b[0m\r\u001b[2K',
    '\u001b[31mred\u001b[0m\r\u001b[2K',
  ],
  [
    'links to files are our own',
    '\u001b]8;;file:///a\u001b\\x\u001b]8;;\u001b\\',
    '\u001b]8;;file:///a\u001b\\x\u001b]8;;\u001b\\',
  ],
  ['the cursor stays where it is', 'a\u001b[1A\u001b[5;9Hb\u001b7c', 'abc'],
  ['no title, no link away', '\u001b]0;title\u0007x\u001b]8;;https://x.test\u001b\\y', 'xy'],
  ['a link that never ends', `\u001b]8;;https://x.test`, ''],
  ['single controls are shown', 'a\u0007b\u0008c\u009b', 'a\ufffdb\ufffdc\ufffd'],
  ['directions are not turned', 'a\u202eb\u061cc', 'a\ufffdb\ufffdc'],
  ['lines and tabs stay', 'a\n\tb', 'a\n\tb'],
])('%s', (_, text, shown) => {
  expect(withoutControls(text)).toBe(shown)
})

test('a terminal is guarded, and anything else gets every byte', () => {
  let written = ''
  const stream = (isTTY: boolean) => ({ isTTY, columns: 80, write: (text: string) => (written += text) })
  guarded(stream(true)).write('\u001b[1Ax')
  expect(written).toBe('x')
  guarded(stream(false)).write('\u001b[1Ax')
  expect(written).toBe('x\u001b[1Ax')
  expect(guarded(stream(true)).columns).toBe(80)
})
