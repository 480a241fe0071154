import { describe, expect, test } from 'vitest'
import { checkAlone } from '../../../test/support/cases.ts'
import { presetNamed } from '../host/presets.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { sourceMapOf } from './source-map.ts'

const site = parseSite('https://skerryline.example/b/')
const options = { site, host: presetNamed('files') }

describe('a source map', () => {
  /** Generated line 2: column 1 is line 4, column 3 of the first source; 11 is line 4, column 7 of the second; 21 and 31 are of others. */
  const map = JSON.stringify({
    version: 3,
    sources: ['../src/a.ts', 'webpack://site/./src/b.ts?1f2e', 'webpack/runtime/x', '\0virtual'],
    sourcesContent: ['one', null, null, null],
    names: [],
    mappings: ';AAGE,UCAI,UCHN,UCAA',
  })
  const at = async (
    line: number,
    column: number,
    files: Record<string, string> = {},
  ): Promise<string | null> => {
    const folder = new MemoryFolder({ 'assets/a.js': '', 'assets/a.js.map': map, ...files })
    const { trace } = await sourceMapOf(folder, 'assets/a.js', files['assets/a.js'] ?? '')
    const found = trace?.({ line, column })
    return found ? `${found.file}:${found.line}:${found.column}` : null
  }

  test.each<[number, number, string | null]>([
    [2, 1, 'src/a.ts:4:3'],
    [2, 10, 'src/a.ts:4:3'],
    [2, 11, 'src/b.ts:4:7'],
    [2, 20, 'src/b.ts:4:7'],
    [2, 21, null],
    [2, 31, null],
    [1, 1, null],
  ])('line %i, column %i', async (line, column, expected) => {
    expect(await at(line, column)).toBe(expected)
  })
  test('behind a line that keeps it from running as a script', async () => {
    expect(await at(2, 1, { 'assets/a.js.map': `)]}'\n${map}` })).toBe('src/a.ts:4:3')
    expect(await at(2, 1, { 'assets/a.js.map': map.replace('"one"', '")]}\'\\n"') })).toBe('src/a.ts:4:3')
  })
  test('under the name that the last line gives, in a script and in a style sheet', async () => {
    const named = { 'assets/m.json': map, 'assets/a.js.map': '{}' }
    expect(await at(2, 1, { ...named, 'assets/a.js': '\nx//# sourceMappingURL=m.json\n' })).toBe(
      'src/a.ts:4:3',
    )
    expect(await at(2, 1, { ...named, 'assets/a.js': '\nx/*# sourceMappingURL=m.json */' })).toBe(
      'src/a.ts:4:3',
    )
    expect(await at(2, 1, { ...named, 'assets/a.js': 'x//# sourceMappingURL=m.json\ny' })).toBeNull()
  })
  test('within the file', async () => {
    const data = `data:application/json;charset=utf-8;base64,${btoa(map)}`
    expect(await at(2, 11, { 'assets/a.js': `\nx//# sourceMappingURL=${data}` })).toBe('src/b.ts:4:7')
  })
  test('of what the map brings the text along', async () => {
    const { trace } = await sourceMapOf(new MemoryFolder({ 'assets/a.js.map': map }), 'assets/a.js', '')
    expect(trace?.({ line: 2, column: 1 })?.text).toBe('one')
    expect(trace?.({ line: 2, column: 11 })?.text).toBeNull()
  })
})

describe('findings', () => {
  const files = {
    'index.html':
      '<!doctype html>\n<link rel=icon href="/b/i.svg">\n<img src="/b/a.png"><img src="/b/x/b.png">\n<script src="/b/s.js"></script>',
    'about.html': '<!doctype html><img src="/b/a.png">',
    's.js': '\n\nfetch("http://localhost:1/v1")',
  }

  test('come with the heaviest first, and of those the one with most places', async () => {
    const { findings } = await checkAlone(
      ['asset/missing', 'endpoint/loopback'],
      new MemoryFolder(files),
      options,
    )
    expect(findings.map(({ code, severity, count }) => `${severity} ${code} ${count}`)).toEqual([
      'blocker asset/missing 2',
      'blocker asset/missing 1',
      'blocker endpoint/loopback 1',
      'caution asset/missing 1',
    ])
  })
  test('a note stands behind a caution, whatever their places', async () => {
    const { findings } = await checkAlone(
      ['asset/missing'],
      new MemoryFolder({
        'index.html': '<link rel=prefetch href="/b/x.js"><link rel=icon href="/b/i.svg">',
        'a.html': '<!doctype html><link rel=prefetch href="/b/x.js">',
      }),
      options,
    )
    expect(findings.map(({ severity, count }) => `${severity} ${count}`)).toEqual(['caution 1', 'note 2'])
  })
  test('a place has its line, its column and the code', async () => {
    const { findings } = await checkAlone(
      ['asset/missing', 'endpoint/loopback'],
      new MemoryFolder(files),
      options,
    )
    expect(findings[0]?.places).toMatchObject([
      { file: 'about.html', line: 1, column: 26 },
      {
        file: 'index.html',
        line: 3,
        column: 11,
        request: 'https://skerryline.example/b/a.png',
        status: 404,
      },
    ])
    expect(findings[2]?.places).toMatchObject([
      { file: 's.js', line: 3, column: 8, highlight: { start: 7, length: 21 } },
    ])
  })
  test('several addresses keep that order', async () => {
    const sites = [site, parseSite('https://other.example/b/')]
    const { findings } = await checkAlone(['asset/missing'], new MemoryFolder(files), { ...options, sites })
    expect(findings[0]).toMatchObject({ severity: 'blocker', count: 2 })
  })
})

test('what was requested is listed, what fails first, then what most places request', async () => {
  const { assets } = await checkAlone(
    ['asset/missing'],
    new MemoryFolder({
      'index.html': '<img src="/b/one.png"><img src="/b/two.png"><img src="/b/gone.png">',
      'about.html': '<!doctype html><img src="/b/two.png">',
      'one.png': '1',
      'two.png': '22',
    }),
    options,
  )
  expect(assets).toMatchObject({ references: 4, requests: 3, answered: 2, missing: 1 })
  expect(assets.list).toEqual([
    {
      path: '/b/gone.png',
      status: 404,
      fails: true,
      answeredBy: 'nothing: there is no such file',
      file: null,
      bytes: null,
      places: 1,
    },
    {
      path: '/b/two.png',
      status: 200,
      fails: false,
      answeredBy: 'a file',
      file: 'two.png',
      bytes: 2,
      places: 2,
    },
    {
      path: '/b/one.png',
      status: 200,
      fails: false,
      answeredBy: 'a file',
      file: 'one.png',
      bytes: 1,
      places: 1,
    },
  ])
})

test('lines around a place in the sources', async () => {
  const { findings } = await checkAlone(
    ['endpoint/loopback'],
    new MemoryFolder({
      'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'vite.config.js': "export default { base: '/b/' }",
      'src/a.js': 'one\ntwo\n\tthree\nfetch("http://localhost:1/v1")\nfive\nsix\nseven',
      'dist/index.html': '<script src="/b/a.js"></script>',
      'dist/a.js': 'fetch("http://localhost:1/v1")',
    }),
    options,
  )
  expect(findings[0]?.source).toMatchObject({
    file: 'src/a.js',
    line: 4,
    column: 8,
    around: { from: 2, lines: ['two', '  three', 'fetch("http://localhost:1/v1")', 'five', 'six'] },
  })
})

test('the base path that the output shows is read from a file', async () => {
  const { survey } = await checkAlone(
    ['asset/missing'],
    new MemoryFolder({ 'index.html': '<script src="/b/a.js"></script>', 'a.js': '' }),
    options,
  )
  expect(survey.observedBase).toMatchObject({
    value: '/b/',
    from: { file: 'index.html', line: 1, column: 1 },
  })
})

test('of the places of a variable, three are shown', async () => {
  const call = 'fetch("https://api.skerryline.test/v1");'
  const { environment } = await checkAlone(
    ['env/absent'],
    new MemoryFolder({
      'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'src/main.js': 'fetch(import.meta.env.VITE_API)',
      'dist/index.html': '<script src="/b/a.js"></script>',
      '.env': 'VITE_API=https://api.skerryline.test/v1',
      'dist/a.js': call,
      'dist/b.js': call,
      'dist/c.js': call,
      'dist/d.js': call,
    }),
    { site },
  )
  expect(environment.map(({ name, injectedIn }) => [name, injectedIn.length])).toEqual([['VITE_API', 3]])
})

test('where no address is given, none is shown', async () => {
  const { findings } = await checkAlone(
    ['base/wrong-path'],
    new MemoryFolder({
      'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'vite.config.js': "export default { base: '/b/' }",
      'dist/index.html': '<script src="/a.js"></script>',
      'dist/a.js': '',
    }),
    { host: presetNamed('files') },
  )
  expect(findings[0]?.places.map(({ request }) => request)).toEqual(['/a.js'])
  expect(findings[0]?.fix.steps.at(-1)).toBe('Or serve the folder at /, for which it was built.')
  expect(JSON.stringify(findings.map(({ impact, cause, fix }) => [impact, cause, fix]))).not.toContain(
    'invalid',
  )
})
