import fc from 'fast-check'
import { expect, test } from 'vitest'
import { foldXml } from './xml.ts'

/** A value without its places. */
function plain(value: ReturnType<typeof foldXml>): unknown {
  if (value?.kind === 'list') return value.items.map(plain)
  if (value?.kind === 'object')
    return Object.fromEntries([...value.members].map(([name, each]) => [name, plain(each)]))
  return value?.kind === 'value' ? value.value : null
}

test.each([
  ['<a><b>1</b><b>2</b><c x="y"/></a>', { a: { b: ['1', '2'], c: '' } }],
  ['<?xml version="1.0"?><!DOCTYPE a><!-- <b> --><a>x &amp; <![CDATA[<y>]]></a>', { a: 'x & <y>' }],
  ['<a><b>not closed', { a: { b: 'not closed' } }],
  ['no markup', null],
  ['</a></b><c>1</c></d>', { c: '1' }],
])('%s', (xml, data) => {
  expect(plain(foldXml('a.xml', xml))).toEqual(data)
})

test('each element has its place', () => {
  const root = foldXml('a.xml', '<a>\n  <b>1</b></a>')
  const a = root?.kind === 'object' ? root.members.get('a') : null
  const b = a?.kind === 'object' ? a.members.get('b') : null
  expect(b?.at).toEqual({ file: 'a.xml', line: 2, column: 3 })
})

test('any text ends, however deep', () => {
  const marks = fc.constantFrom(
    '<a>',
    '</a>',
    '<b/>',
    '<',
    '>',
    '</',
    '<!--',
    '-->',
    '<![CDATA[',
    ']]>',
    '<?',
    '&#x;',
    'x',
    '"',
  )
  const texts = fc.oneof(
    fc.string(),
    fc.array(marks).map((all) => all.join('')),
  )
  fc.assert(fc.property(texts, (text) => void foldXml('a.xml', text)))
  expect(foldXml('a.xml', '<a>'.repeat(100_000))).toBeNull()
})
