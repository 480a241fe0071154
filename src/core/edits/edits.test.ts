import { describe, expect, test } from 'vitest'
import type { Edit, Finding } from '../model/report.ts'
import { applied, isPlaced } from './edit.ts'
import { editsByFile, fixable, movesOf, outcomesOf } from './outcome.ts'
import { placeEdits } from './place-edits.ts'

/** The text of a file after an edit; null where it gets no place. */
async function edited(source: string | null, edit: Edit): Promise<string | null> {
  const [found] = await placeEdits([edit], async () => source)
  return found && isPlaced(found) ? applied(source, [found]) : null
}

const base = "base: '/b/',"
const config = (write = base, at: Partial<Edit> = {}): Edit => ({
  file: 'vite.config.ts',
  line: null,
  write,
  ...at,
})

describe('a setting in a script', () => {
  test.each<[string, string, string, Edit?]>([
    [
      'an object of one line',
      'export default { plugins: [a()] }',
      "export default { base: '/b/', plugins: [a()] }",
    ],
    ['an object without members', 'export default {}', "export default { base: '/b/' }"],
    ['without blanks', 'export default {plugins:[]}', "export default {base: '/b/', plugins:[]}"],
    [
      'an object of many lines',
      'export default defineConfig({\n    plugins: [],\n})\n',
      "export default defineConfig({\n    base: '/b/',\n    plugins: [],\n})\n",
    ],
    [
      'a comment of the first member, which stays with it',
      'export default {\n  // Ours.\n  plugins: [],\n}\n',
      "export default {\n  base: '/b/',\n  // Ours.\n  plugins: [],\n}\n",
    ],
    [
      'a constant with a type',
      'const config: UserConfig = {\n\tplugins: [],\n}\nexport default config satisfies UserConfig\n',
      "const config: UserConfig = {\n\tbase: '/b/',\n\tplugins: [],\n}\nexport default config satisfies UserConfig\n",
    ],
    [
      'what a function returns',
      'export default defineConfig(({ mode }) => {\n  const a = 1\n  return { a }\n})',
      "export default defineConfig(({ mode }) => {\n  const a = 1\n  return { base: '/b/', a }\n})",
    ],
    ['an arrow', 'export default () => ({ a: 1 })', "export default () => ({ base: '/b/', a: 1 })"],
    ['CommonJS', 'module.exports = { a: 1 }', "module.exports = { base: '/b/', a: 1 }"],
    [
      'a spread, which would replace what stands before it',
      'export default { ...shared, a: 1 }',
      "export default { ...shared, a: 1, base: '/b/' }",
    ],
    [
      'a spread on lines with a comma at the end',
      'export default {\n  ...shared,\n  a: 1,\n}',
      "export default {\n  ...shared,\n  a: 1,\n  base: '/b/',\n}",
    ],
    [
      'double quotes',
      'import a from "a"\nexport default { plugins: [a("x")] }',
      'import a from "a"\nexport default { base: "/b/", plugins: [a("x")] }',
    ],
    ['a member that is there', "export default { base: '/', a: 1 }", "export default { base: '/b/', a: 1 }"],
    [
      'a member of an object that is there',
      'export default { app: { head: {} }, a: 1 }',
      "export default { app: { baseURL: '/b/', head: {} }, a: 1 }",
      config("app: { baseURL: '/b/' },"),
    ],
    [
      'a member of an object that is not there',
      'export default { a: 1 }',
      "export default { kit: { paths: { base: '/b' } }, a: 1 }",
      config("kit: { paths: { base: '/b' } },"),
    ],
    [
      'the value at a place, wherever it is',
      "const path = '/'\nexport default { base: path }",
      "const path = '/b/'\nexport default { base: path }",
      config(base, { line: 1, column: 14 }),
    ],
    [
      'the object at a place, of several',
      "export default [\n  { name: 'server' },\n  { name: 'site' },\n]",
      "export default [\n  { name: 'server' },\n  { base: '/b/', name: 'site' },\n]",
      config(base, { line: 3, column: 3 }),
    ],
  ])('%s', async (_, source, expected, edit = config()) => {
    expect(await edited(source, edit)).toBe(expected)
  })

  test.each([
    ['a script that can not be parsed', 'export default {'],
    ['an export that is computed', 'export default await load()'],
    ['several ways out', 'export default function () { return { a }; return { b } }'],
    ['a member below one that is computed', 'export default { app: read() }', "app: { baseURL: '/b/' },"],
  ])('%s gets none', async (_, source, write = base) => {
    expect(await edited(source, config(write))).toBeNull()
  })

  test('a project without a configuration gets one', async () => {
    const whole = "export default {\n  base: '/b/',\n}\n"
    expect(await edited(null, config(base, { whole }))).toBe(whole)
    expect(await edited(null, config())).toBeNull()
  })
})

describe('a URL that is written by hand', () => {
  const expression = '`${import.meta.env.BASE_URL}ferry.svg`'
  const url = '/ferry.svg'
  test.each<[string, string, string, string]>([
    ['a text', 'a.ts', "i.src = '/ferry.svg'", `i.src = ${expression}`],
    ['a text without blanks', 'a.tsx', 'i.src="/ferry.svg"', `i.src=${expression}`],
    ['an attribute in JSX', 'a.jsx', 'a(<img src="/ferry.svg" />)', `a(<img src={${expression}} />)`],
    [
      'markup in a template',
      'a.ts',
      'a(`<img src="/ferry.svg">`)',
      'a(`<img src="${import.meta.env.BASE_URL}ferry.svg">`)',
    ],
    ['a template by itself', 'a.ts', 'a(`/ferry.svg`)', `a(${expression})`],
    [
      'markup in Svelte',
      'A.svelte',
      '<img src="/ferry.svg">',
      '<img src="{import.meta.env.BASE_URL}ferry.svg">',
    ],
    [
      'a script in Svelte',
      'A.svelte',
      "<script>a('/ferry.svg')</script>",
      `<script>a(${expression})</script>`,
    ],
    [
      'markup in Astro',
      'a.astro',
      '---\na()\n---\n<img src="/ferry.svg">',
      `---\na()\n---\n<img src={${expression}}>`,
    ],
    [
      'a part of a text',
      'a.jsx',
      `x({ background: 'url(/ferry.svg)' })`,
      'x({ background: `url(${import.meta.env.BASE_URL}ferry.svg)` })',
    ],
    [
      'a part of an attribute',
      'a.jsx',
      '<img srcSet="/ferry.svg 2x" />',
      '<img srcSet={`${import.meta.env.BASE_URL}ferry.svg 2x`} />',
    ],
    [
      'an expression in the markup of Astro',
      'a.astro',
      `<a href={"/ferry.svg"}>`,
      `<a href={${expression}}>`,
    ],
    [
      'an expression in the markup of Svelte',
      'A.svelte',
      `<a href={ '/ferry.svg' }>`,
      `<a href={ ${expression} }>`,
    ],
    ['code in Astro', 'a.astro', "---\na('/ferry.svg')\n---\n<p>", `---\na(${expression})\n---\n<p>`],
    [
      'a script in Vue',
      'A.vue',
      "<script setup>a('/ferry.svg')</script>",
      `<script setup>a(${expression})</script>`,
    ],
  ])('%s', async (_, file, source, expected) => {
    const before = source.slice(0, source.indexOf(url))
    const line = before.split('\n').length
    const column = before.length - before.lastIndexOf('\n')
    expect(await edited(source, { file, line, column, instead: url, write: expression })).toBe(expected)
  })

  test('what a call gives stands in a hole of a template', async () => {
    const edit = { file: 'a.js', line: 1, column: 4, instead: url, write: "withBase('/ferry.svg')" }
    expect(await edited('a(`/ferry.svg#x`)', edit)).toBe("a(`${withBase('/ferry.svg')}#x`)")
  })

  test.each([
    ['A.vue', '<template><img src="/ferry.svg"></template>'],
    ['a.js', 'a("/ferry.svg?x")'],
    ['a.js', 'a("other")'],
    ['a.js', 'a(`<img src="/ferry.svg/more">`)'],
  ])('%s: %s gets none', async (file, source) => {
    const column = Math.max(1, source.indexOf(url) + 1)
    expect(await edited(source, { file, line: 1, column, instead: url, write: expression })).toBeNull()
  })
})

describe('what a router is given', () => {
  test.each<[string, string, Edit['into'], string, string]>([
    ['no argument yet', 'a(createWebHistory())', { argument: 0 }, "'/b/'", "a(createWebHistory('/b/'))"],
    ['an argument', "a(createWebHistory('/'))", { argument: 0 }, 'x', 'a(createWebHistory(x))'],
    [
      'a member of an argument',
      'a(createRouter({ routeTree }))',
      { argument: 0, member: 'basepath' },
      'x',
      'a(createRouter({ basepath: x, routeTree }))',
    ],
    [
      'a second argument',
      'a(createBrowserRouter(routes))',
      { argument: 1, member: 'basename' },
      "'/b/'",
      "a(createBrowserRouter(routes, { basename: '/b/' }))",
    ],
    [
      'an attribute',
      'a(<BrowserRouter>x</BrowserRouter>)',
      { attribute: 'basename' },
      '{x}',
      'a(<BrowserRouter basename={x}>x</BrowserRouter>)',
    ],
    [
      'another attribute',
      'a(<BrowserRouter basename="/" />)',
      { attribute: 'basename' },
      '{x}',
      'a(<BrowserRouter basename={x} />)',
    ],
  ])('%s', async (_, source, into, write, expected) => {
    expect(await edited(source, { file: 'a.jsx', line: 1, column: 3, write, into })).toBe(expected)
  })

  test('an argument that is computed is for a person', async () => {
    const edit = { file: 'a.ts', line: 1, column: 1, write: 'x', into: { argument: 0, member: 'basepath' } }
    expect(await edited('createRouter(options)', edit)).toBeNull()
  })
})

describe('a setting in data', () => {
  test.each<[string, string, Edit, string]>([
    [
      'the manifest',
      '{\n  "name": "s",\n  "version": "1"\n}\n',
      { file: 'package.json', line: null, write: '"homepage": "/b/",' },
      '{\n  "name": "s",\n  "version": "1",\n  "homepage": "/b/"\n}\n',
    ],
    [
      'the manifest, with tabs, where it is there',
      '{\n\t"name": "s",\n\t"homepage": "."\n}\n',
      { file: 'package.json', line: 3, write: '"homepage": "/b/",' },
      '{\n\t"name": "s",\n\t"homepage": "/b/"\n}\n',
    ],
    [
      'an object that begins on a line, with comments',
      '{\n  // Ours.\n  "projects": {\n    "site": {\n      "options": {\n        "outputPath": "dist"\n      }\n    }\n  }\n}\n',
      { file: 'angular.json', line: 5, write: '"baseHref": "/b/",' },
      '{\n  // Ours.\n  "projects": {\n    "site": {\n      "options": {\n        "outputPath": "dist",\n        "baseHref": "/b/"\n      }\n    }\n  }\n}\n',
    ],
    [
      'TOML',
      'title = "S"\nbaseURL = "https://a.test/" # ours\n\n[params]\nbaseURL = "x"\n',
      { file: 'hugo.toml', line: 2, write: 'baseURL = "https://s.test/b/"' },
      'title = "S"\nbaseURL = "https://s.test/b/" # ours\n\n[params]\nbaseURL = "x"\n',
    ],
    [
      'TOML that lacks it',
      'title = "S"\n[params]\na = 1\n',
      { file: 'hugo.toml', line: null, write: 'baseURL = "https://s.test/b/"' },
      'baseURL = "https://s.test/b/"\ntitle = "S"\n[params]\na = 1\n',
    ],
    [
      'YAML with a line that begins it',
      '---\ntitle: S\n',
      { file: '_config.yml', line: null, write: 'baseurl: "/b"' },
      '---\nbaseurl: "/b"\ntitle: S\n',
    ],
    [
      'an option of a command',
      '{\n  "scripts": {\n    "build": "tsc && vite build --base /a/ --mode x"\n  }\n}',
      { file: 'package.json', line: 3, write: '--base /b/', after: 'vite build' },
      '{\n  "scripts": {\n    "build": "tsc && vite build --base /b/ --mode x"\n  }\n}',
    ],
    [
      'an option that is not there',
      '{\n  "scripts": {\n    "build": "parcel build src/index.html"\n  }\n}',
      { file: 'package.json', line: 3, write: '--public-url /b/', after: 'parcel build' },
      '{\n  "scripts": {\n    "build": "parcel build --public-url /b/ src/index.html"\n  }\n}',
    ],
    [
      'an object on the line of another',
      '{ "expo": { "name": "s", "web": {} } }',
      { file: 'app.json', line: 1, column: 11, write: '"experiments": { "baseUrl": "/b" },' },
      '{ "expo": { "name": "s", "web": {}, "experiments": { "baseUrl": "/b" } } }',
    ],
    [
      'an object by the place of its name',
      '{\n  "expo": {\n    "name": "s"\n  }\n}',
      { file: 'app.json', line: 2, column: 3, write: '"experiments": { "baseUrl": "/b" },' },
      '{\n  "expo": {\n    "name": "s",\n    "experiments": { "baseUrl": "/b" }\n  }\n}',
    ],
    [
      'the base of a page',
      '<head>\n<base target="_top" href="/"><title>S</title>',
      { file: 'src/index.html', line: 2, write: '<base href="/b/">' },
      '<head>\n<base target="_top" href="/b/"><title>S</title>',
    ],
    [
      'a text of a line',
      'ship:\n  publish_dir: public\n',
      { file: 'ship.yml', line: 2, write: 'dist', instead: 'public' },
      'ship:\n  publish_dir: dist\n',
    ],
  ])('%s', async (_, source, edit, expected) => {
    expect(await edited(source, edit)).toBe(expected)
  })

  test.each<[string, string, Edit]>([
    ['a text that stands twice', 'a: x x\n', { file: 'a.yml', line: 1, write: 'y', instead: 'x' }],
    ['a line that is not there', 'a: x\n', { file: 'a.yml', line: 9, write: 'y', instead: 'x' }],
    [
      'a command that is not there',
      '{}',
      { file: 'package.json', line: 1, write: '--base /b/', after: 'vite build' },
    ],
    ['a file of another kind', '<p>', { file: 'index.html', line: 1, write: base }],
    ['no file at all', 'x', { file: '', line: null, write: base }],
  ])('%s gets none', async (_, source, edit) => {
    expect(await edited(source, edit)).toBeNull()
  })
})

describe('a variable of an environment file', () => {
  const edit = {
    file: '.env.production',
    line: null,
    write: 'VITE_API=…',
    needs: 'VITE_API',
    whole: 'VITE_API=\n',
  }
  const given = async (source: string | null, value: string): Promise<string | null> => {
    const edits = await placeEdits([edit], async () => source)
    expect(JSON.stringify(edits)).not.toContain('localhost')
    const finding = { fingerprint: '1', waived: false, fix: { edits } } as unknown as Finding
    expect(fixable([finding])).toEqual([])
    const [fix] = fixable([finding], new Map([['VITE_API', value]]))
    return fix ? applied(source, fix.edits) : null
  }

  test.each<[string | null, string, string]>([
    [null, 'https://s.test', 'VITE_API=https://s.test\n'],
    ['A=1', 'https://s.test', 'A=1\nVITE_API=https://s.test\n'],
    ['A=1\n', 'two words', "A=1\nVITE_API='two words'\n"],
    [
      'VITE_API=http://localhost:1\nA=1\n',
      'https://s.test/?a=$1',
      "VITE_API='https://s.test/?a=$1'\n# before: http://localhost:1\nA=1\n",
    ],
    ['export VITE_API=\n', 'x', 'export VITE_API=x\n'],
  ])('%j gets %s', async (source, value, expected) => {
    expect(await given(source, value)).toBe(expected)
  })
})

describe('an address that a person must give, in its place', () => {
  const given = async (source: string, edit: Partial<Edit>, value: string): Promise<string | null> => {
    const place = { file: 'main.js', line: 1, column: 8, needs: 'API_ORIGIN', write: '…', ...edit }
    const edits = await placeEdits([place], async () => source)
    const finding = { fingerprint: '1', waived: false, fix: { edits } } as unknown as Finding
    const [fix] = fixable([finding], new Map([['API_ORIGIN', value]]))
    return fix ? applied(source, fix.edits) : null
  }
  const path = { instead: '/api/v1', write: '…/api/v1' }
  test.each<[string, Partial<Edit>, string, string | null]>([
    [
      'fetch("http://localhost:1/v1")',
      { instead: 'http://localhost:1' },
      'https://s.test',
      'fetch("https://s.test/v1")',
    ],
    ['fetch("http://localhost:12/v1")', { instead: 'http://localhost:1' }, 'https://s.test', null],
    ['fetch("/api/v1")', path, 'https://s.test', 'fetch("https://s.test/api/v1")'],
    ['fetch(b/api/v1)', path, 'https://s.test', null],
    ['fetch("/api/v1")', path, 'x")+evil("', null],
  ])('%s', async (source, edit, value, expected) => {
    expect(await given(source, edit, value)).toBe(expected)
  })
})

describe('edits of a file', () => {
  const at = (start: number, end: number, expects: string, text: string) => ({
    file: 'a',
    line: 1,
    write: text,
    range: { start, end },
    expects,
    text,
  })

  test('are made from the end, so that offsets stay true', () => {
    expect(applied('one two', [at(0, 3, 'one', 'first'), at(4, 7, 'two', 'second')])).toBe('first second')
  })

  test('are not made in a file that has changed, or where they overlap', () => {
    expect(applied('one two', [at(0, 3, 'two', 'x')])).toBeNull()
    expect(applied('one two', [at(0, 4, 'one ', 'x'), at(3, 7, ' two', 'y')])).toBeNull()
    expect(applied(null, [at(0, 0, '', 'new')])).toBeNull()
    expect(applied(null, [{ ...at(0, 0, '', 'new'), whole: 'new' }])).toBe('new')
  })

  test('are shown as the lines that change', async () => {
    const source = 'export default {\n  a: 1,\n}\n'
    const [added] = await placeEdits([config()], async () => source)
    expect(added?.lines).toEqual({ before: '', after: "  base: '/b/'," })
    const [changed] = await placeEdits([config('a: 2,')], async () => source)
    expect(changed?.lines).toEqual({ before: '  a: 1,', after: '  a: 2,' })
    const [long] = await placeEdits([config()], async () => `export default { a: '${'x'.repeat(2_000)}' }`)
    expect(long?.lines).toBeUndefined()
  })

  test('of several findings are made once, and a finding with a step for a person is none of them', () => {
    const edit = at(0, 3, 'one', 'two')
    const finding = (fingerprint: string, edits: Edit[], waived = false) =>
      ({ fingerprint, waived, severity: 'blocker', fix: { steps: [], edits } }) as unknown as Finding
    const unplaced = { file: 'a', line: 1, write: 'x' }
    const all = [
      finding('1', [edit]),
      finding('2', [edit]),
      finding('3', [edit, unplaced]),
      finding('4', [edit], true),
    ]
    const fixes = fixable(all)
    expect(fixes.map(({ finding: each }) => each.fingerprint)).toEqual(['1', '2'])
    expect(editsByFile(fixes).get('a')).toEqual([edit])
  })

  test.each([
    ['a map of YAML', 'a.yml', 'env:\n  APP_KEY: x\n', "env:\n  APP_API: '…'\n  APP_KEY: x\n"],
    ['a list of YAML', 'a.yml', 'env:\n  - APP_KEY=x\n', 'env:\n  - APP_API=…\n  - APP_KEY=x\n'],
    ['a container', 'Dockerfile', 'FROM n\nENV APP_KEY="x"\n', 'FROM n\nENV APP_API="…"\nENV APP_KEY="x"\n'],
    [
      'an argument of one',
      'Dockerfile',
      'FROM n\nARG APP_KEY=x\n',
      'FROM n\nARG APP_API="…"\nARG APP_KEY=x\n',
    ],
    ['TOML', 'a.toml', '[env]\nAPP_KEY = "x"\n', '[env]\nAPP_API = "…"\nAPP_KEY = "x"\n'],
    ['JSON', 'a.json', '{ "env": {\n"APP_KEY": "x" } }', '{ "env": {\n"APP_API": "…",\n"APP_KEY": "x" } }'],
    ['a list of names', 'a.yml', 'env:\n  - name: APP_KEY\n', null],
  ])('are an entry before another one: %s', async (_, file, source, after) => {
    const edit: Edit = { file, line: 2, write: 'APP_API: …', needs: 'APP_API', beside: true }
    const edits = (await placeEdits([edit], async () => source)).filter(isPlaced)
    expect(edits.length > 0 ? applied(source, edits) : null).toBe(after)
  })

  test('that only move a file are moves, each once', async () => {
    const move: Edit = { file: 'public/a', line: null, write: '', moveTo: 'unpublished/a' }
    const edits = await placeEdits([move], async () => null)
    const finding = { fingerprint: '1', severity: 'blocker', waived: false, fix: { steps: [], edits } }
    const fixes = fixable([finding, finding] as unknown as Finding[])
    expect(movesOf(fixes)).toEqual([{ from: 'public/a', to: 'unpublished/a' }])
    expect([...editsByFile(fixes)]).toEqual([])
  })

  test('are proved where the finding is gone and nothing has come', () => {
    const finding = (fingerprint: string, severity = 'blocker') =>
      ({ fingerprint, severity, waived: false, fix: { edits: [at(0, 1, 'a', 'b')] } }) as unknown as Finding
    const fixes = fixable([finding('1'), finding('2')])
    const before = [finding('1'), finding('2'), finding('3')]
    const stateOf = (after: Finding[]) => [...outcomesOf(fixes, before, after).states.values()]
    expect(stateOf([finding('3')])).toEqual(['proved', 'proved'])
    expect(stateOf([finding('2'), finding('3')])).toEqual(['proved', 'not enough'])
    expect(stateOf([finding('4')])).toEqual(['worse', 'worse'])
    expect(stateOf([finding('4', 'note')])).toEqual(['proved', 'proved'])
  })
})

test('an expression of a script gives way to an object', async () => {
  const edit = { file: 'a.js', line: 1, column: 8, instead: 'env', write: '{ A: env.A }' }
  expect(await edited('define(env)', edit)).toBe('define({ A: env.A })')
  expect(await edited('define(environment)', edit)).toBeNull()
})

test('nobody is shown what stands around an edit of an environment file', async () => {
  const edit = { file: '.env', line: 1, instead: 'VITE_A', write: 'A' }
  const [found] = await placeEdits([edit], async () => 'VITE_A=anchor-9')
  expect(JSON.stringify(found)).not.toContain('anchor')
  expect(await edited('VITE_A=anchor-9', edit)).toBe('A=anchor-9')
})
