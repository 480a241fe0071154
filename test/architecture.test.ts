import { execFileSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, normalize } from 'node:path'
import { expect, test } from 'vitest'

/** Which folders of `src/core` each may import from, besides itself. Files beside the folders may import all. */
const allowed: Readonly<Record<string, readonly string[]>> = {
  model: [],
  syntax: ['model'],
  configuration: ['model', 'release'],
  frameworks: ['model', 'syntax'],
  project: ['model', 'syntax', 'frameworks'],
  output: ['model', 'syntax'],
  host: ['model'],
  requests: ['model', 'host'],
  endpoints: ['model', 'syntax', 'output', 'project', 'requests', 'frameworks'],
  reach: ['model', 'endpoints'],
  rehearse: ['model'],
  release: ['model', 'host', 'requests', 'endpoints'],
  checks: [
    'release',
    'model',
    'host',
    'requests',
    'output',
    'project',
    'frameworks',
    'endpoints',
    'reach',
    'rehearse',
    'live',
  ],
  live: ['model', 'host', 'requests', 'release'],
  report: [
    'release',
    'model',
    'edits',
    'host',
    'requests',
    'output',
    'project',
    'endpoints',
    'rehearse',
    'checks',
  ],
  edits: ['model', 'syntax'],
  setup: ['model', 'project'],
  pipeline: [
    'model',
    'edits',
    'configuration',
    'frameworks',
    'project',
    'output',
    'host',
    'requests',
    'endpoints',
    'reach',
    'rehearse',
    'release',
    'live',
    'checks',
    'report',
  ],
}

/** Which folders of `src` each may import from, besides itself. */
const layers: Readonly<Record<string, readonly string[]>> = {
  core: [],
  node: ['core'],
  reach: ['core', 'node'],
  rehearse: ['core', 'node'],
  terminal: ['core', 'rehearse'],
  bundler: ['core', 'node', 'terminal'],
  vite: ['core', 'bundler'],
  webpack: ['core', 'bundler'],
  vitest: ['core', 'node', 'terminal'],
  cli: ['core', 'node', 'reach', 'rehearse', 'terminal'],
}

function filesBelow(directory: string): string[] {
  return readdirSync(directory, { recursive: true, encoding: 'utf8' }).map((path) => join(directory, path))
}

function sources(directory: string): string[] {
  return filesBelow(directory).filter(
    (path) => path.endsWith('.ts') && !path.endsWith('.test.ts') && !path.endsWith('.d.ts'),
  )
}

function imports(path: string): string[] {
  const text = readFileSync(path, 'utf8')
  return [...text.matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/g)].map((match) => match[1] ?? '')
}

/** What a text of this kind imports against the rules: the same function that reads the real files. */
function offences(path: string, specifiers: readonly string[]): string[] {
  const [, layer = '', folder = ''] = path.split('/')
  return specifiers.flatMap((specifier) => {
    if (specifier.startsWith('node:')) return layer === 'core' ? [`${path} imports ${specifier}`] : []
    if (!specifier.startsWith('.')) return []
    const [, toLayer = '', toFolder = ''] = normalize(join(dirname(path), specifier)).split('/')
    if (toLayer !== layer) return layers[layer]?.includes(toLayer) ? [] : [`${path} imports ${specifier}`]
    if (layer !== 'core' || folder.endsWith('.ts') || toFolder === folder) return []
    return allowed[folder]?.includes(toFolder) ? [] : [`${path} imports ${specifier}`]
  })
}

test('imports run one way, and core knows neither Node nor an interface', () => {
  const files = sources('src')
  expect(files.length).toBeGreaterThan(50)
  expect(files.flatMap((path) => offences(path, imports(path)))).toEqual([])
})

test('the viewer takes from core alone, and nothing takes from the viewer', () => {
  const pages = filesBelow('viewer/src').filter((path) => /\.tsx?$/.test(path))
  expect(pages.length).toBeGreaterThan(20)
  const leaving = pages.flatMap((path) =>
    imports(path)
      .filter((specifier) => specifier.startsWith('.'))
      .map((specifier) => normalize(join(dirname(path), specifier)))
      .filter((target) => !target.startsWith('viewer/src/') && !target.startsWith('src/core/')),
  )
  expect(leaving).toEqual([])
  expect(sources('src').filter((path) => imports(path).some((each) => each.includes('viewer/')))).toEqual([])
})

test('the rule sees what it is there for', () => {
  expect(
    offences('src/core/model/x.ts', [
      'node:fs',
      '../checks/check.ts',
      '../../node/index.ts',
      'zod',
      './y.ts',
    ]),
  ).toHaveLength(3)
  expect(offences('src/node/x.ts', ['node:fs', '../core/pipeline/check.ts', '../cli/main.ts'])).toHaveLength(
    1,
  )
})

test('core uses no console, document or process', () => {
  const uses = sources('src/core').filter((path) =>
    /\b(?:console|document|process)\.\w/.test(withoutText(readFileSync(path, 'utf8'))),
  )
  expect(uses).toEqual([])
})

/** Code without its comments, strings and regular expressions. */
function withoutText(code: string): string {
  return code.replace(
    /\/\*[\s\S]*?\*\/|\/\/.*|'(?:\\.|[^'\\\n])*'|`(?:\\.|[^`\\])*`|\/(?![*/])(?:\\.|\[(?:\\.|[^\]\\])*\]|[^/\\\n])+\/[a-z]*/g,
    '""',
  )
}

test('what is generated is current: the list of checks, the schema, the pages of findings', () => {
  expect(() => execFileSync('node', ['scripts/generate.mjs', '--check'], { stdio: 'pipe' })).not.toThrow()
})

test('every check has a test that names its code', () => {
  const beside = filesBelow('src/core/checks').filter((path) => path.endsWith('.test.ts'))
  const tests = [
    'src/core/pipeline/check.test.ts',
    'test/real-builds.test.ts',
    'test/live.test.ts',
    'src/core/live/look.test.ts',
    ...beside,
  ]
    .map((path) => readFileSync(path, 'utf8'))
    .join('\n')
  const codes = sources('src/core/checks').flatMap(
    (path) => /code: '([^']+)'/.exec(readFileSync(path, 'utf8'))?.[1] ?? [],
  )
  expect(codes.length).toBeGreaterThan(6)
  expect(codes.filter((code) => !tests.includes(code))).toEqual([])
})
