import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

// What somebody sees who has just installed the program.
const site = ['--site', 'https://skerryline.example/']
const page = '<!doctype html><title>Skerry Line</title>'

describe('--out and --format', () => {
  test('one of each belong together in either order', () => {
    for (const order of [
      ['--out', 'x.html', '--format', 'html'],
      ['--format', 'html', '--out', 'x.html'],
    ]) {
      const folder = folderWith({ 'index.html': page })
      const ran = wardoscope(['.', ...site, ...order], folder)
      expect(ran).toMatchObject({ status: 0, out: '' })
      expect(readFileSync(join(folder, 'x.html'), 'utf8')).toMatch(/^<!doctype html>/)
    }
  })

  test('a file without a clear format is wrong use, and nothing is written', () => {
    const folder = folderWith({ 'index.html': page })
    const ran = wardoscope(
      ['.', ...site, '--out', 'a', '--format', 'json', '--format', 'html', '--out', 'b'],
      folder,
    )
    expect(ran.status).toBe(2)
    expect(ran.err).toContain('--out a stands before every --format')
    expect(existsSync(join(folder, 'a'))).toBe(false)
  })

  test.each([
    ['survey', 'sarif'],
    ['survey', 'html'],
    ['check', 'xml'],
    ['compare x', 'xml'],
  ])('%s has no format %s', (command, format) => {
    const folder = folderWith({ 'index.html': page, 'x/index.html': page })
    const ran = wardoscope([...command.split(' '), '.', '--format', format], folder)
    expect(ran).toMatchObject({ status: 2, out: '' })
    expect(ran.err).toMatch(/^wardoscope: There is no format/)
  })
})

test.each(['check', 'survey', 'rehearse', 'reach', 'compare', 'waive', 'explain', 'demo'])(
  'the help of %s shows an example and its exit statuses',
  (command) => {
    const { out, status } = wardoscope(['help', command])
    expect(status).toBe(0)
    expect(out).toMatch(/\nExamples:\n {2}wardoscope /)
    expect(out).toMatch(/\nExit status: 0 /)
    expect(wardoscope([command, '--help']).out).toBe(out)
  },
)

test('the help of all shows the options of check', () => {
  const { out } = wardoscope(['--help'])
  for (const option of [
    '--site <url>',
    '--host <preset or file>',
    '--folder <dir>',
    '--format <name>',
    '--build',
  ])
    expect(out.split('Options of check:')[1]).toContain(option)
})

test.each([
  ['chek', 'check'],
  ['survy', 'survey'],
  ['explian', 'explain'],
])('%s is nearly a command', (word, meant) => {
  const ran = wardoscope([word], folderWith({ 'index.html': page }))
  expect(ran).toMatchObject({
    status: 2,
    out: '',
    err: `wardoscope: There is no command "${word}". Did you mean ${meant}?\n`,
  })
})

test('a directory of a command’s name, or nearly, is a path', () => {
  const folder = folderWith({ 'chek/index.html': page })
  expect(wardoscope(['chek', ...site], folder).status).toBe(0)
})

describe('folders that are no tidy site', () => {
  test('with assets and no page: held by the missing entry, and what can be judged is', () => {
    const folder = folderWith({
      'css/a.css': 'a{background:url(gone.png)} b{background:url(there.png)}',
      'css/there.png': 'x',
      'js/a.js': 'import "./gone.js"; import "./b.js"; fetch("http://localhost:3000/v1")',
      'js/b.js': 'export {}',
    })
    const { findings, verdict } = JSON.parse(
      wardoscope(['.', ...site, '--host', 'files', '--format', 'json'], folder).out,
    )
    expect(verdict).toBe('held')
    expect(findings.map(({ code }: { code: string }) => code).sort()).toEqual([
      'asset/missing',
      'asset/missing',
      'endpoint/loopback',
      'route/no-answer',
    ])
  })

  test.each(['index.ejs', 'index.template', 'index.html.tmpl', 'index.hbs'])(
    'with %s: it is the page, its placeholders are noted, and the rest is judged',
    (name) => {
      const folder = folderWith({
        [name]: `<!doctype html><title>{{title}}</title><link rel="icon" href="{{base}}/icon.svg"><script type="module" src="/a.js"></script>`,
        'a.js': 'export {}',
      })
      const { findings, verdict, routes, survey } = JSON.parse(
        wardoscope(['.', ...site, '--host', 'files', '--format', 'json'], folder).out,
      )
      expect(verdict).toBe('clear')
      expect(routes[0]).toMatchObject({ path: '/', status: 200, entryFile: name })
      expect(findings).toMatchObject([
        { code: 'base/unreplaced-marker', severity: 'note', places: [{ file: name, line: 1 }] },
      ])
      expect(survey.remarks.join()).toContain(`${name} is read as the entry page`)
    },
  )

  test('a template beside a page, and two templates, are no page', () => {
    const beside = folderWith({ 'index.html': page, 'index.ejs': '<script src="/gone.js"></script>' })
    expect(wardoscope(['.', ...site], beside).status).toBe(0)
    const two = folderWith({ 'index.ejs': page, 'index.hbs': page, 'a.css': '' })
    expect(wardoscope(['.', ...site], two).out).toContain('route/no-answer')
  })

  test('an entry page beside a manifest that builds nothing is a build folder', () => {
    const folder = folderWith({ 'index.html': page, 'package.json': '{"name":"x","type":"module"}' })
    expect(wardoscope(['.', ...site], folder)).toMatchObject({ status: 0, err: '' })
  })
})

describe('sentences', () => {
  test.each(['.', '..', '../..', './'])('no dot of the path %s ends one', (path) => {
    const folder = folderWith({
      'package.json': '{"name":"x","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    })
    const depth = path.split('..').length - 1
    const at = join(folder, ...['a', 'b'].slice(0, depth))
    mkdirSync(at, { recursive: true })
    const { out } = wardoscope([path, ...site], at)
    expect(out).toContain('project/not-built')
    expect(out).toMatch(/Run npm run build in (?:this directory|the directory "[./]+")\./)
    expect(out).not.toMatch(/\.\.\.|\. \./)
  })

  test('the folder has a name where its path has none, and "Then" is no first step', () => {
    const folder = folderWith({ 'a.css': 'a{background:url(x.png)}' })
    const { out } = wardoscope(['.', ...site], folder)
    expect(out).toContain('The folder holds no index.html.')
    expect(out).toContain('a.css:1:18')
    expect(out).not.toContain('./a.css')
    expect(out).not.toMatch(/1\. Then/)
  })

  test('SARIF names a path from the root as a file URI', () => {
    const folder = folderWith({ 'index.html': '<script src="/gone.js"></script>' })
    const { runs } = JSON.parse(wardoscope([folder, ...site, '--format', 'sarif']).out)
    expect(runs[0].results[0].locations[0].physicalLocation.artifactLocation.uri).toBe(
      `file://${folder}/index.html`,
    )
  })
})
