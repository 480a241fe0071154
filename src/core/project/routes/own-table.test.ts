import { expect, test } from 'vitest'
import { parseSource } from '../../syntax/parse.ts'
import { holdsOwnRouter, ownRoutes } from './own-table.ts'

const go = "const go = (to) => { history.pushState({}, '', to); show(location.pathname) }\n"

function patterns(code: string): string[] {
  const text = go + code
  expect(holdsOwnRouter(text)).toBe(true)
  return ownRoutes('src/main.js', parseSource('src/main.js', text)).map(({ pattern }) => pattern)
}

test.each<[string, string, string[]]>([
  [
    'a table',
    "const pages = { '/': home, '/tides': tides, '/crew/': crew, '*': none }",
    ['/', '/tides', '/crew/'],
  ],
  ['a switch', "switch (location.pathname) { case '/tides': tides(); break; default: home() }", ['/tides']],
  [
    'comparisons',
    "if (location.pathname === '/tides') tides(); else if ('/crew' == location.pathname) crew()",
    ['/tides', '/crew'],
  ],
  [
    'where a server forwards paths',
    "const proxy = { '/api': 'http://localhost:1', '/ws': 'http://localhost:2' }",
    [],
  ],
  ['files by their names', "const files = { '/': a, '/ferry.png': b }", []],
  ['other keys among them', "const texts = { '/': 'or', '/tides': 'x', name: 'y' }", []],
  ['one path alone', "const one = { '/tides': tides }", []],
])('%s', (_, code, expected) => {
  expect(patterns(code)).toEqual(expected)
})

test('a module that only reads the path is no router', () => {
  expect(holdsOwnRouter("const here = { '/': 1, '/tides': 2 }[location.pathname]")).toBe(false)
})
