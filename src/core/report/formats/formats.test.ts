import { expect, test } from 'vitest'
import { formatNamed, formats, registered } from './index.ts'
import { json } from './json.ts'

test('a format is found by its name, and one that there is none of names the nearest', () => {
  for (const format of formats) expect(formatNamed(format.name)).toBe(format)
  expect(() => formatNamed('jsn')).toThrow('There is no format "jsn". Did you mean json?')
  expect(() => formatNamed('html', [json])).toThrow('There is no format "html".')
})

test('two formats of one name are an error that names it', () => {
  expect(() => registered([json, { ...json, extension: 'x' }])).toThrow('Two formats have the name json.')
})
