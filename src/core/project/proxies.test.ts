import { describe, expect, test } from 'vitest'
import { checkAlone } from '../../../test/support/cases.ts'
import { presetNamed } from '../host/presets.ts'
import { beginningsOf, forwards } from '../model/forwarded.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { surveyProject } from './survey-project.ts'

test.each<[string, string[]]>([
  ['/api', ['/api']],
  ['/api/', ['/api/']],
  ['/', []],
  ['^/api/.*', ['/api/']],
  ['^/api', ['/api']],
  ['^/(api|auth)/', ['/api/', '/auth/']],
  ['^/(?:v1|v2)/(a|b)', ['/v1/a', '/v1/b', '/v2/a', '/v2/b']],
  ['^/api/v\\d+/', ['/api/v']],
  ['^/api\\.php', ['/api.php']],
  ['^/ap?i/', ['/a']],
  ['^/(?!assets/).*', []],
  ['^.*', []],
  [`^/(${Array.from({ length: 40 }, (_, index) => `a${index}`).join('|')})`, []],
])('%s begins with %j', (entry, beginnings) => {
  expect(beginningsOf(entry)).toEqual(beginnings)
})

test('an entry forwards what begins so', () => {
  expect(forwards('^/api/.*', '/api/v1')).toBe(true)
  expect(forwards('^/api/.*', '/apis')).toBe(false)
  expect(forwards('/', '/x')).toBe(false)
})

const manifest = (framework: string, build: string, more = {}): string =>
  JSON.stringify({ name: 's', scripts: { build }, devDependencies: { [framework]: '1' }, ...more })

describe('what a development server forwards', () => {
  test.each<[string, Record<string, string>, string[], string]>([
    [
      'a pattern of Vite',
      {
        'package.json': manifest('vite', 'vite build'),
        'vite.config.js':
          "export default { server: { proxy: { '^/api/.*': { target: 'http://localhost:1' } } } }",
      },
      ['^/api/.*'],
      'vite.config.js:1',
    ],
    [
      'a list of webpack',
      {
        'package.json': manifest('webpack', 'webpack'),
        'webpack.config.js':
          "module.exports = { devServer: { proxy: [{ context: ['/api', '/auth'], target: 'x' }, { context: '/ws' }] } }",
      },
      ['/api', '/auth', '/ws'],
      'webpack.config.js:1',
    ],
    [
      'a list of Angular, as code',
      {
        'package.json': manifest('@angular/core', 'ng build'),
        'angular.json':
          '{"projects":{"s":{"architect":{"build":{"options":{}},"serve":{"options":{"proxyConfig":"./proxy.conf.js"}}}}}}',
        'proxy.conf.js': "module.exports = [{ context: ['/api'], target: 'x' }]",
      },
      ['/api'],
      'proxy.conf.js:1',
    ],
    [
      'a data file of Parcel',
      {
        'package.json': manifest('parcel', 'parcel build index.html'),
        '.proxyrc': '{\n"/api": {"target": "x"}}',
      },
      ['/api'],
      '.proxyrc:1',
    ],
    [
      'a program of Parcel',
      {
        'package.json': manifest('parcel', 'parcel build index.html'),
        '.proxyrc.js':
          "\nmodule.exports = (app) => { app.use(createProxyMiddleware('/api', { target: 'x' })) }",
      },
      ['/api'],
      '.proxyrc.js:2',
    ],
    [
      'a program of react-scripts',
      {
        'package.json': manifest('react-scripts', 'react-scripts build', { proxy: 'http://localhost:1' }),
        'src/setupProxy.js':
          "module.exports = (app) => app.use(['/api', '/auth'], createProxyMiddleware({ target: 'x' }))",
      },
      ['/api', '/auth'],
      'src/setupProxy.js:1',
    ],
    [
      'a program that names a filter',
      {
        'package.json': manifest('react-scripts', 'react-scripts build'),
        'src/setupProxy.js': "app.use(createProxyMiddleware({ target: 'x', pathFilter: '/api' }))",
      },
      ['/api'],
      'src/setupProxy.js:1',
    ],
    [
      'VuePress, in the call of its bundler',
      {
        'package.json': manifest('vuepress', 'vuepress build docs'),
        'docs/.vuepress/config.js':
          "import { viteBundler } from '@vuepress/bundler-vite'\nexport default { bundler: viteBundler({\n viteOptions: { server: { proxy: { '/api': 'http://localhost:1' } } } }) }",
      },
      ['/api'],
      'docs/.vuepress/config.js:3',
    ],
    [
      'the settings of the Ember commands',
      {
        'package.json': manifest('ember-cli', 'ember build'),
        '.ember-cli': '{\n// The service beside it.\n"proxy": "http://localhost:1" }',
      },
      ['/'],
      '.ember-cli:3',
    ],
    [
      'a script that serves an Ember application',
      {
        'package.json': JSON.stringify({
          scripts: { build: 'ember build', start: 'ember serve --proxy http://localhost:1' },
          devDependencies: { 'ember-cli': '5' },
        }),
      },
      ['/'],
      'package.json:1',
    ],
    [
      'the manifest of react-scripts',
      { 'package.json': manifest('react-scripts', 'react-scripts build', { proxy: 'http://localhost:1' }) },
      ['/'],
      'package.json:1',
    ],
  ])('%s', async (_, files, paths, where) => {
    const found = (await surveyProject(new MemoryFolder(files)))?.survey.devProxy
    expect(found?.value).toEqual(paths)
    expect(found && 'file' in found.from ? `${found.from.file}:${found.from.line}` : null).toBe(where)
  })
})

test('a path below a pattern is found in the build, and one beside it is not', async () => {
  const files = (code: string): Record<string, string> => ({
    'package.json': manifest('vite', 'vite build'),
    'vite.config.js':
      "export default { base: '/b/', server: { proxy: { '^/(api|auth)/.*': 'http://localhost:1' } } }",
    'src/a.js': code,
    'dist/index.html': '<script type=module src=/b/a.js></script>',
    'dist/a.js': code,
  })
  const options = { site: parseSite('https://skerryline.example/b/'), host: presetNamed('files') }
  const codes = async (code: string): Promise<string[]> =>
    (await checkAlone(['endpoint/'], new MemoryFolder(files(code)), options)).findings.map(
      (finding) => `${finding.code} ${finding.severity}`,
    )
  expect(await codes('fetch("/auth/v1")')).toEqual(['endpoint/proxy-only blocker'])
  expect(await codes('fetch("/authors")')).toEqual([])
})
