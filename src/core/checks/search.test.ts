import { expect, test } from 'vitest'
import { checks } from './index.ts'
import { checksFor } from './search.ts'

const codesFor = (text: string): string[] => checksFor(text, checks).map(({ code }) => code)

test.each<[string, string[]]>([
  ['base/wrong-path', ['base/wrong-path']],
  ['CORS', ['endpoint/origin-refused']],
  ['mixed content', ['asset/insecure', 'endpoint/insecure']],
  ['MIME type', ['asset/answered-with-page', 'asset/wrong-type']],
  ['single-page fallback', ['asset/answered-with-page', 'route/no-answer']],
  ['refresh on a deep link', ['route/no-answer']],
  ['redirect loop', ['route/redirect-loop']],
  ['source map', ['delivery/source-map']],
  ['localhost', ['endpoint/loopback']],
  ['too many redirects', ['route/redirect-loop']],
  ['', []],
  ['zebra', []],
])('%s', (text, codes) => {
  expect(codesFor(text)).toEqual(codes)
})

test('an area lists its codes, and wins over a keyword of that name', () => {
  expect(codesFor('base').length).toBeGreaterThan(3)
  expect(codesFor('base').every((code) => code.startsWith('base/'))).toBe(true)
})

test('every check is found by words', () => {
  expect(checks.filter(({ keywords = [] }) => keywords.length === 0)).toEqual([])
})
