import { expect, test } from 'vitest'
import { parseHostFile } from './host-file.ts'

test('a host file adds to the preset it is based on', () => {
  const host = parseHostFile(
    'host.json',
    '{"basedOn":"fallback","withheld":["_"],"rules":[{"from":"/old/*","to":"/new/*","status":301}]}',
  )
  expect(host).toMatchObject({
    name: 'host.json',
    directoryIndex: 'index.html',
    withheld: ['_'],
    fallback: { status: 200 },
    rules: [{ from: '/old/*', to: '/new/:splat', status: 301, forced: false, conditions: [] }],
  })
})

test('several documents may stand for what is not found', () => {
  const notFound = { documents: ['de/404.html', '404.html'], status: 599 }
  expect(parseHostFile('h.json', JSON.stringify({ notFound })).notFound).toEqual(notFound)
})

test.each([
  ['{', 'The host file h.json is not JSON.'],
  ['{"fallbck":null}', 'The host file h.json has a key "fallbck" that is not known. Did you mean fallback?'],
  ['{"rules":[{"form":"/x"}]}', 'The host file h.json has a wrong "rules.0.from"'],
  ['{"trailingSlash":"maybe"}', 'The host file h.json has a wrong "trailingSlash"'],
  ['{"rules":[{"from":"/x","status":600}]}', 'The host file h.json has a wrong "rules.0.status"'],
  ['{"notFound":{"documents":[],"status":404}}', 'The host file h.json has a wrong "notFound.documents"'],
  ['[]', 'The host file h.json is wrong'],
])('%s is reported in one sentence', (text, message) => {
  expect(() => parseHostFile('h.json', text)).toThrow(message)
})
