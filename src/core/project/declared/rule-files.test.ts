import { expect, test } from 'vitest'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { ruleFilesIn, rulesAt, rulesOfText } from './rule-files.ts'

function reported(text: string): string[] {
  return rulesOfText('rules', text).map(({ from, to, status, forced, conditions }) =>
    `${from} ${to} ${status}${forced ? '!' : ''} ${conditions.join(' ')}`.trim(),
  )
}

test.each<[string, string, string[]]>([
  ['a fallback', '/* /index.html 200', ['/* /index.html 200']],
  [
    'redirects, a comment and a blank line',
    '# old\n/old /new\n\n/a/* /b/:splat 302 # kept',
    ['/old /new 301', '/a/* /b/:splat 302'],
  ],
  ['a forced rule', '/x /y 301!', ['/x /y 301!']],
  ['conditions', '/x /y 302 country=is', ['/x /y 302 country=is']],
  ['another origin', '/x https://other.example/ 301', ['/x https://other.example/ 301']],
  ['prose', 'The rules of the house\n/x /y', []],
  ['a list of robots', 'User-agent: *\nDisallow: /x', []],
  ['nothing', '', []],
])('%s', (_, text, expected) => {
  expect(reported(text)).toEqual(expected)
})

test('lists of objects in data files are rules, and other lists are not', async () => {
  const folder = new MemoryFolder({
    'deploy.json':
      '{"redirects":[{"source":"/old","destination":"/new","permanent":true}],"rewrites":[{"source":"/(.*)","destination":"/index.html"}],"headers":[{"source":"/x","headers":[]}]}',
    'deploy.toml': '[[redirects]]\nfrom = "/a/*"\nto = "/b/:splat"\nstatus = 302\nforce = true\n',
    'deploy.yaml': 'routes:\n  - path: /api/*\n    to: https://api.example/:splat\n    status: 200\n',
    'data.json': '[{"path":"/x","title":"y"}]',
    'package.json': '{"a":[{"from":"/x","to":"/y"}]}',
    rules: '/x /y',
    'notes.txt': 'hello',
  })
  const found = await ruleFilesIn(folder)
  expect(
    found.map(({ file, kind, rules }) => [
      file,
      kind,
      rules.map(({ from, to, status, forced }) => [from, to, status, forced]),
    ]),
  ).toEqual([
    [
      'deploy.json',
      'data',
      [
        ['/old', '/new', 308, false],
        ['/*', '/index.html', 200, false],
      ],
    ],
    ['deploy.toml', 'data', [['/a/*', '/b/:splat', 302, true]]],
    ['deploy.yaml', 'data', [['/api/*', 'https://api.example/:splat', 200, false]]],
    ['rules', 'text', [['/x', '/y', 301, false]]],
  ])
  expect(found[1]?.rules[0]?.place).toMatchObject({ file: 'deploy.toml' })
})

test('rules of a folder speak from its top, unless they name the base path', () => {
  const at = (text: string): string[] =>
    rulesAt('/b/', rulesOfText('r', text)).map(({ from, to }) => `${from} ${to}`)
  expect(at('/* /index.html 200')).toEqual(['/b/* /b/index.html'])
  expect(at('/b/* /b/index.html 200\n/x /y')).toEqual(['/b/* /b/index.html', '/x /y'])
  expect(at('/x https://other.example/')).toEqual(['/b/x https://other.example/'])
})
