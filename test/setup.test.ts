import { execFileSync, spawn } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { withPipelineStep } from '../src/core/setup/pipeline-step.ts'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

const manifest =
  '{\n\t"name": "s",\n\t"homepage": "https://skerryline.example/crossings/",\n\t"scripts": {\n\t\t"build": "vite build"\n\t},\n\t"devDependencies": { "vite": "8" }\n}\n'
const pipeline = `# Ships the site.
steps:
  - name: Build
    run: npm run build
    env:
      A: b

  # Then it goes.
  - name: Upload
    run: ./upload.sh
`

function project(more: Readonly<Record<string, string>> = {}): string {
  const home = folderWith({
    'package.json': manifest,
    'vite.config.js': "export default { base: '/crossings/' }\n",
    'index.html': '<!doctype html><script type="module" src="/src/main.js"></script>\n',
    'src/main.js':
      "import { createRouter, createWebHistory } from 'vue-router'\ncreateRouter({ history: createWebHistory(import.meta.env.BASE_URL), routes: [{ path: '/', component: 1 }, { path: '/harbours', component: 1 }] })\n",
    ...more,
  })
  execFileSync('git', ['init', '-q'], { cwd: home })
  return home
}

const read = (home: string, file: string): string => readFileSync(join(home, file), 'utf8')

test('what the project says of itself is taken, shown as a patch and written in the style of its files', () => {
  const home = project({ '.pipeline/ship.yml': pipeline })
  const { status, out, err } = wardoscope(['setup', '--yes', '--pipeline'], home)
  expect([status, err]).toEqual([0, 'Written: wardoscope.config.json, package.json, .pipeline/ship.yml\n'])
  expect(JSON.parse(read(home, 'wardoscope.config.json'))).toEqual({
    $schema: './node_modules/wardoscope/schemas/wardoscope-config-1.schema.json',
    site: 'https://skerryline.example/crossings/',
  })
  expect(read(home, 'package.json')).toBe(
    manifest.replace(
      '"build": "vite build"\n',
      '"build": "vite build",\n\t\t"check:build": "wardoscope check"\n',
    ),
  )
  expect(read(home, '.pipeline/ship.yml')).toBe(
    pipeline.replace(
      '      A: b\n',
      '      A: b\n  - name: Check what ships\n    run: npx wardoscope check\n',
    ),
  )
  expect(out).toContain('+++ b/wardoscope.config.json')
  expect(out).toContain('+\t\t"check:build": "wardoscope check"')
  // What it wrote is what check reads.
  expect(wardoscope(['check', '--no-cache'], home).out).toContain('https://skerryline.example/crossings/')
})

test('nothing is written over, and a second time says so', () => {
  const home = project({ 'wardoscope.config.mjs': 'export default {}\n' })
  const { status, err } = wardoscope(['setup', '--yes'], home)
  expect(status).toBe(2)
  expect(err).toMatch(
    /^wardoscope: wardoscope\.config\.mjs is there already, and nothing is written over it\./,
  )
  expect(existsSync(join(home, 'wardoscope.config.json'))).toBe(false)
  expect(read(home, 'package.json')).toBe(manifest)
})

test('a script of that name stays as it is', () => {
  const mine = manifest.replace('"build": "vite build"', '"build": "vite build", "check:build": "true"')
  const home = project({ 'package.json': mine })
  const { err } = wardoscope(['setup', '--yes'], home)
  expect(err).toContain('package.json has a script "check:build" already, which stays as it is.')
  expect(read(home, 'package.json')).toBe(mine)
})

test("a server's own configuration is the host that is proposed", () => {
  const home = project({ 'nginx.conf': 'server { listen 80; root /srv/site; }\n' })
  wardoscope(['setup', '--yes'], home)
  expect(JSON.parse(read(home, 'wardoscope.config.json')).host).toBe('./nginx.conf')
})

test.each<[string, string[], RegExp]>([
  ['no terminal', [], /^wardoscope: setup asks at a terminal, and this is none\. Give --yes/],
  ['no address', ['--yes', '--site', 'crossings'], /^wardoscope: .*crossings/],
  ['no pipeline file', ['--yes', '--pipeline'], /^wardoscope: No pipeline file here runs npm run build/],
])('%s is one sentence, and nothing is written', (_, args, says) => {
  const home = project()
  const { status, out, err } = wardoscope(['setup', ...args], home)
  expect([status, out]).toEqual([2, ''])
  expect(err).toMatch(says)
  expect(err.trimEnd()).not.toContain('\n')
  expect(existsSync(join(home, 'wardoscope.config.json'))).toBe(false)
})

test('a folder that is no project is one sentence', () => {
  const { status, err } = wardoscope(['setup', '--yes'], folderWith({ 'a.txt': '' }))
  expect(status).toBe(2)
  expect(err).toMatch(/^wardoscope: .*is no project.*\n$/)
})

/** Runs the program at a terminal, and answers each question when it has come. */
function atTerminal(home: string, answers: readonly [question: RegExp, keys: string][]): Promise<string> {
  const bin = join(import.meta.dirname, '../dist/cli/bin.cjs')
  const child = spawn('script', ['-qec', `stty cols 120; node ${bin} setup`, '/dev/null'], {
    cwd: home,
    env: { ...process.env, TERM: 'xterm-256color', NO_COLOR: '1' },
  })
  let seen = ''
  let next = 0
  let from = 0
  child.stdout.on('data', (data: Buffer) => {
    seen += data.toString('utf8')
    const [question, keys] = answers[next] ?? []
    if (question === undefined || !question.test(seen.slice(from))) return
    next++
    from = seen.length
    setTimeout(() => child.stdin.write(keys ?? ''), 100)
  })
  return new Promise((resolve) => child.on('exit', () => resolve(seen)))
}

test('at a terminal four questions are asked, each with what was found and where', async () => {
  const home = project()
  const seen = await atTerminal(home, [
    [/Where will it be served\? \(package\.json:3 names it; empty when not known\)/, '\r'],
    [/How does its host answer\? \(src\/main\.js:2\)/, '\u001b[A\r'],
    [/The sources name 2 routes\. More that visitors open/, 'timetable, /fares\r'],
    [/What keeps a build from shipping\?/, '\u001b[B\r'],
    [/Write these 2 files\?/, '\r'],
  ])
  expect(seen).toContain('Written: wardoscope.config.json, package.json')
  expect(JSON.parse(read(home, 'wardoscope.config.json'))).toMatchObject({
    site: 'https://skerryline.example/crossings/',
    host: 'files',
    routes: ['/timetable', '/fares'],
    holdOn: ['caution'],
  })
}, 30_000)

test('who leaves at a question, or says no, leaves nothing behind', async () => {
  const home = project()
  expect(await atTerminal(home, [[/Where will it be served/, '\u0003']])).toContain('Nothing was written.')
  const seen = await atTerminal(home, [
    [/Where will it be served/, '\r'],
    [/How does its host answer/, '\r'],
    [/More that visitors open/, '\r'],
    [/What keeps a build/, '\r'],
    [/Write these 2 files\?/, 'n\r'],
  ])
  expect(seen).toContain('Nothing was written.')
  expect(existsSync(join(home, 'wardoscope.config.json'))).toBe(false)
  expect(read(home, 'package.json')).toBe(manifest)
}, 60_000)

test.each<[string, string, string | null]>([
  [
    'a list of commands',
    'build:\n  script:\n    - npm ci\n    - npm run build\n  after: x\n',
    'build:\n  script:\n    - npm ci\n    - npm run build\n    - npx wardoscope check\n  after: x\n',
  ],
  [
    'several lines in one step, without a name, at the end of the file',
    'steps:\n- run: |\n    npm ci\n    npm run build',
    'steps:\n- run: |\n    npm ci\n    npm run build\n- run: npx wardoscope check\n',
  ],
  [
    'another key',
    'tasks:\n  - script: npm run build\n    title: Build\n',
    'tasks:\n  - script: npm run build\n    title: Build\n  - script: npx wardoscope check\n',
  ],
  ['in no list', 'build: npm run build\n', null],
  ['on one line', 'steps: [npm ci, npm run build]\n', null],
  ['checked already', 'steps:\n  - npm run build\n  - npx wardoscope check\n', null],
  ['another command', 'steps:\n  - npm run build:docs\n', null],
  ['no YAML', 'a: [\n', null],
])('a step behind the build: %s', (_, before, after) => {
  expect(withPipelineStep(before, ['npm run build'])?.whole ?? null).toBe(after)
})
