import { expect, test } from 'vitest'
import { BuiltScript } from './built-script.ts'
import { Fold } from './fold.ts'
import { builtTree, linked, sourceTree, type Tree } from './tree.ts'
import type { Folded } from './value.ts'

const nowhere = { file: '', line: 1, column: 1 }

function folded(text: string, tree: Tree | null): Folded {
  const body = (tree as Tree<{ body: { expression: never }[] } & Tree['root']>).root.body
  const last = body.at(-1)
  if (!tree || !last) throw new Error('There is no tree.')
  return new Fold({ text, tree, placeOf: () => nowhere }).of(last.expression)
}

/** What the last statement's expression comes to: its value, or what is known of it. */
function shown(value: Folded): unknown {
  if (value.kind === 'value') return value.value
  if (value.kind === 'list') return value.items.map(shown)
  if (value.kind === 'object') return Object.fromEntries([...value.members].map(([k, v]) => [k, shown(v)]))
  if (value.kind !== 'computed') return value.kind
  return value.begins === undefined ? 'computed' : { begins: value.begins }
}

test.each<[string, string, unknown]>([
  ['a constant', "const a = 'x'; a", 'x'],
  ['a name of a pattern', "const { a: { b } } = { a: { b: 'x' } }; b", 'x'],
  ['a default in a pattern', "const { a = 'x' } = {}; a", 'x'],
  ['an item of a list', "const [, b] = ['x', 'y']; b", 'y'],
  ['a list that spreads another', "const a = ['x']; [...a, 'y']", ['x', 'y']],
  ['an object that spreads another', 'const a = { x: 1 }; ({ ...a, y: 2 })', { x: 1, y: 2 }],
  ['a function', "const f = (a) => '/' + a; f('x')", '/x'],
  ['a default of a parameter', "function f(a = 'x') { return a } f()", 'x'],
  [
    'a function that names its parts',
    "function f({ a }) { const b = a + '/'; return b } f({ a: 'x' })",
    'x/',
  ],
  ['a function inside another', "function f(a) { const g = () => a; return g() } f('x')", 'x'],
  ['a function without a return', 'const f = () => { g() }; f()', undefined],
  ['a function that returns by a test', "const f = (a) => { if (a) { return 'x' } return 'y' }; f(1)", 'x'],
  ['a test that is not known', "const f = () => { if (g()) return 'x'; return 'y' }; f()", 'computed'],
  [
    'a return of a function inside',
    "const f = () => { if (g()) { h(() => { return 1 }) } return 'y' }; f()",
    'y',
  ],
  ['a name that means another thing inside', "const a = 'x'; const f = (a) => a; f('y')", 'y'],
  ['a name given another value later', "let a = 'x'; a = 'y'; a", 'computed'],
  ['a name that counts', 'let a = 1; a++; a', 'computed'],
  ['a name declared twice', "var a = 'x'; var a = 'y'; a", 'computed'],
  ['a name that refers to itself', 'const a = a; a', 'computed'],
  ['the beginning of a sum', "const a = 'x'; a + '/' + g()", { begins: 'x/' }],
  ['the beginning of a template', 'const a = `x/${g()}/y`; `${a}/z`', { begins: 'x/' }],
  ['a text put together by a method', "'x'.concat('/', 'y')", 'x/y'],
  [
    'slashes taken off',
    "['/b/'.replace(/\\/$/, ''), '//b//'.replace(/\\/+$/, ''), '/b'.replace(/^\\//, '')]",
    ['/b', '//b', 'b'],
  ],
  ['a text changed by another pattern', "'/b/'.replace(/b/, '')", 'call'],
  ['a missing member', 'const a = { x: 1 }; a.y', undefined],
  ['a member of what is not known', 'const a = { ...g() }; a.y', 'computed'],
  ['an entry of a table', "(e => ({ 1: 'x', 2: 'y' })[e])(2)", 'y'],
  ['an entry by a name that is a number', "(e => e + '.' + { a: 'x' }[e])('a')", 'a.x'],
  ['optional members', "const a = { b: { c: 'x' } }; a?.b?.c", 'x'],
  ['loose equality', '[null == undefined, 1 == "1", null == 0]', [true, true, false]],
  ['nothing by void', 'void 0', undefined],
  ['the opposite', '!0', true],
])('%s', (_, code, expected) => {
  expect(shown(folded(code, builtTree(code)))).toEqual(expected)
})

test('a source has the same values, with types put to them', () => {
  const code = "const a = { b: 'x' } as const satisfies object; (a!.b as string)"
  expect(shown(folded(code, sourceTree('a.ts', code)))).toBe('x')
})

test('deep nesting ends', () => {
  const code = `${'1+'.repeat(3_000)}1`
  expect(shown(folded(code, builtTree(code)))).toEqual({ begins: '' })
})

test('a function that calls itself ends', () => {
  const code = 'const f = (a) => f(a) + f(a); f(1)'
  expect(shown(folded(code, builtTree(code)))).toEqual({ begins: '' })
})

test('what is not a script has no tree', () => {
  expect(new BuiltScript('{{{').program()).toBeNull()
  expect(linked(new BuiltScript('a').program() ?? { type: 'Program', start: 0, end: 0 }).uses.has('a')).toBe(
    true,
  )
})
