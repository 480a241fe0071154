import { describe, expect, test } from 'vitest'
import { checkAlone } from '../../../test/support/cases.ts'
import { presetNamed } from '../host/presets.ts'
import { UsageError } from '../model/errors.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { outputsIn } from './find-output.ts'
import { surveyProject } from './survey-project.ts'

const page = (src: string): string => `<!doctype html><script type="module" src="${src}"></script>`
const built = (directory: string, src = '/a.js'): Record<string, string> => ({
  [`${directory}/index.html`]: page(src),
  [`${directory}/a.js`]: '',
})

test.each<[string, Record<string, string>, string[]]>([
  ['one', built('out'), ['out']],
  ['one with another base path', built('out', '/crossings/a.js'), ['out']],
  ['one with relative URLs', built('out', './a.js'), ['out']],
  ['one further down', built('packages/site/www'), ['packages/site/www']],
  ['one too far down', built('a/b/c/d'), []],
  ['several', { ...built('out'), ...built('old') }, ['old', 'out']],
  [
    'several, of which the repository leaves one out',
    { ...built('www'), ...built('public'), '.gitignore': 'node_modules\n/www/\n' },
    ['www'],
  ],
  ['one inside another', { ...built('out'), ...built('out/help') }, ['out']],
  [
    'a page that starts a source',
    { 'app/index.html': page('/main.ts'), 'app/main.ts': '', 'app/a.css': '' },
    [],
  ],
  ['a page whose files are elsewhere', { 'public/index.html': page('https://cdn.example/x.js') }, []],
  ['a page of a dependency or a test', { ...built('node_modules/x'), ...built('test'), ...built('src') }, []],
  ['the directory itself', { 'index.html': page('/a.js'), 'a.js': '' }, []],
  [
    'a style sheet alone',
    { 'out/index.html': '<link rel=stylesheet href=/a.css>', 'out/a.css': '' },
    ['out'],
  ],
  ['an icon alone', { 'public/index.html': '<link rel=icon href=/i.svg>', 'public/i.svg': '' }, []],
])('folders with a built page: %s', async (_, files, expected) => {
  expect(await outputsIn(new MemoryFolder(files))).toEqual(expected)
})

describe('a default directory that is not there', () => {
  const vite = {
    'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'index.html': page('/src/main.ts'),
  }
  test.each<[string, Record<string, string>, string]>([
    ['another that a build made', { ...built('site'), '.gitignore': 'site\n' }, 'site'],
    ['another that is kept with the sources', { ...built('site'), '.gitignore': 'dist\n' }, 'dist'],
    ['several', { ...built('site'), ...built('old'), '.gitignore': 'site\nold\n' }, 'dist'],
    ['the default too', { ...built('site'), ...built('dist'), '.gitignore': 'site\ndist\n' }, 'dist'],
  ])('%s', async (_, files, expected) => {
    const { survey } = (await surveyProject(new MemoryFolder({ ...vite, ...files }))) ?? {}
    expect(survey?.publishDirectory?.value).toBe(expected)
  })
})

describe('a builder that is not known', () => {
  const project = {
    'package.json': '{"name":"s","scripts":{"build":"skerry make"}}',
    'src/api.js': 'fetch(`${import.meta.env.PUBLIC_API}/v1`)',
    '.env.production': 'PUBLIC_API=https://api.skerryline.net',
  }
  const options = { site: parseSite('https://skerryline.example/crossings/'), host: presetNamed('files') }

  test('is looked at by what its output shows', async () => {
    const folder = new MemoryFolder({ ...project, ...built('afloat', '/crossings/a.js') })
    const { survey } = (await surveyProject(folder)) ?? {}
    expect(survey?.publishDirectory).toMatchObject({ value: 'afloat', certainty: 'inferred' })
    expect(survey?.framework).toBeNull()
    expect(survey?.environmentFiles.map(({ file }) => file)).toEqual(['.env.production'])
    expect(survey?.reads.map(({ name }) => name)).toEqual(['PUBLIC_API'])
    const report = await checkAlone(['asset/', 'base/', 'env/', 'project/'], folder, options)
    expect(report.findings).toEqual([])
    expect(report.folder.path).toBe('afloat')
    expect(report.survey.basePath).toMatchObject({ value: '/crossings/', certainty: 'inferred' })
  })
  test('has its faults found', async () => {
    const folder = new MemoryFolder({
      ...project,
      ...built('afloat'),
      'afloat/a.js': 'fetch(`undefined/v1`)',
    })
    const { findings } = await checkAlone(['asset/', 'base/', 'env/', 'project/'], folder, options)
    expect(findings.map(({ code }) => code).sort()).toEqual(['base/wrong-path', 'env/absent'])
    expect(findings.find(({ code }) => code === 'base/wrong-path')?.fix.steps).toContain(
      'Set the base path of the build to /crossings/.',
    )
  })
  test('is not told to be one of those that let names of one prefix through', async () => {
    const source = 'fetch(`${process.env.API}/v1`)'
    const files = { ...project, 'src/api.js': source, ...built('afloat', './a.js') }
    const folder = new MemoryFolder({ ...files, 'afloat/a.js': 'fetch(`undefined/v1`)' })
    const { findings } = await checkAlone(['env/absent'], folder, { host: options.host })
    expect(findings.map(({ fix }) => fix.steps[0])).toEqual([
      expect.stringMatching(/^Set API where the build/),
    ])
  })
  test.each<[string, Record<string, string>, string, string[]]>([
    [
      'a call in a script',
      { 'hauler.config.ts': "export default haul({ output: { publicPath: '/pier/' } })" },
      '/pier/a.js',
      ["In hauler.config.ts, line 1, write  publicPath: '/crossings/',"],
    ],
    [
      'two, each with the slashes that it has',
      { '.haulerrc.js': "module.exports = {\n  base: '/pier',\n  publicPath: '/pier/',\n}" },
      '/pier/a.js',
      [
        "In .haulerrc.js, line 2, write  base: '/crossings',",
        "In .haulerrc.js, line 3, write  publicPath: '/crossings/',",
      ],
    ],
    [
      'data, at the top of a host',
      { '_config.yml': 'title: Pier\nroot: /\n' },
      '/a.js',
      ['In _config.yml, line 2, write  root: "/crossings/"'],
    ],
    [
      'an empty one, which is the top',
      { 'hauler.config.js': "export default { basePath: '', root: '' }" },
      '/a.js',
      ["In hauler.config.js, line 1, write  basePath: '/crossings',"],
    ],
    [
      'a value that the build does not start from',
      { '_config.yml': 'root: /quay/\n' },
      '/pier/a.js',
      ['Set the base path of the build to /crossings/.'],
    ],
    [
      'a name that tells nothing',
      { '_config.yml': 'home_link: /pier/\n' },
      '/pier/a.js',
      ['Set the base path of the build to /crossings/.'],
    ],
  ])(
    'has its base path where a setting holds what the build starts from: %s',
    async (_, files, src, steps) => {
      const folder = new MemoryFolder({ ...project, ...built('afloat', src), ...files })
      const { findings } = await checkAlone(['base/wrong-path'], folder, options)
      const [fix, ...others] = findings.map((finding) => finding.fix)
      expect(others).toEqual([])
      expect(fix?.steps.slice(0, steps.length + 1)).toEqual([...steps, 'Then rebuild: npm run build'])
      expect(fix?.edits ?? []).toHaveLength(steps[0]?.startsWith('In ') ? steps.length : 0)
    },
  )
  test('has what its development server forwards in its settings', async () => {
    const files = {
      ...project,
      'hauler.config.js':
        "export default { server: { proxy: { '/api': { target: 'http://localhost:8787' } } } }",
      ...built('afloat', './a.js'),
      'src/api.js': "fetch('/api/v1')",
      'afloat/a.js': "fetch('/api/v1')",
    }
    const { findings } = await checkAlone(['endpoint/proxy-only'], new MemoryFolder(files), {
      host: options.host,
    })
    expect(findings.map(({ code, cause }) => [code, cause])).toEqual([
      ['endpoint/proxy-only', expect.stringContaining('hauler.config.js:1')],
    ])
  })
  test('has the variables that its own configuration passes on', async () => {
    const files = {
      'package.json': '{"name":"s","scripts":{"build":"hauler pack --now"}}',
      'hauler.config.js':
        'export default { plugins: [new hauler.DefinePlugin({ API: JSON.stringify(process.env.SAILINGS_API) })] }',
      'src/api.js': 'fetch(API + "/v1/list")',
      ...built('afloat', './a.js'),
      'afloat/a.js': 'fetch("undefined/v1/list")',
    }
    const { findings } = await checkAlone(['env/absent'], new MemoryFolder(files), { host: options.host })
    expect(findings.map(({ fix }) => fix.steps[0])).toEqual(['Set SAILINGS_API where the build runs.'])
  })
  test('of two outputs one has to be named, and both are offered', async () => {
    const folder = new MemoryFolder({ ...project, ...built('out'), ...built('old') })
    await expect(checkAlone(['base/'], folder, options)).rejects.toThrow(UsageError)
    await expect(checkAlone(['base/'], folder, options)).rejects.toThrow(
      'built pages are in old and out. Name the directory that ships.',
    )
  })
  test('that did not build yet has its directory to be named', async () => {
    await expect(checkAlone(['base/'], new MemoryFolder(project), options)).rejects.toThrow(
      'No known framework builds memory, and no directory here holds a built page. Build it first, or name the directory.',
    )
  })
})

test('a directory that the configuration computes is the only one with a built page, and that is said', async () => {
  const folder = new MemoryFolder({
    'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': 'export default { build: { outDir: where() } }',
    ...built('out'),
  })
  const report = await checkAlone(['base/'], folder, {})
  expect(report.folder.path).toBe('out')
  expect(report.survey.remarks).toContain(
    'The publish directory is computed at vite.config.js:1; the only folder that holds a built page is taken: out.',
  )
})

test("a computed directory is the framework's default, where that holds a page and nothing else does", async () => {
  const files = {
    'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': 'export default { build: { outDir: where() } }',
    'dist/index.html': '<!doctype html><p>Sailings',
  }
  const report = await checkAlone(['base/'], new MemoryFolder(files), {})
  expect(report.folder.path).toBe('dist')
  expect(report.survey.remarks).toContain(
    "The publish directory is computed at vite.config.js:1; Vite's default is taken: dist.",
  )
  const two = new MemoryFolder({ ...files, ...built('dist'), ...built('out') })
  await expect(checkAlone(['base/'], two, {})).rejects.toThrow('built pages are in dist and out.')
})

describe('a default directory that holds the site further down', () => {
  const project = {
    'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': 'export default { plugins: [both()] }',
  }
  const host = presetNamed('files')
  test.each<[string, Record<string, string>, string, string[]]>([
    [
      'beside what is for a server',
      { ...built('dist/client'), 'dist/server/entry.mjs': '' },
      'dist/client',
      [],
    ],
    [
      'of pages without files',
      { 'dist/public/index.html': '<p>Sailings', 'dist/server.js.map': '' },
      'dist/public',
      [],
    ],
    ['beside another site', { ...built('dist/a', 'a.js'), ...built('dist/b', 'a.js') }, 'dist', []],
    [
      'below the scripts of a site whose entry page is gone',
      { ...built('dist/help', 'a.js'), 'dist/main.js': '' },
      'dist',
      ['project/site-nested'],
    ],
    ['in itself', { ...built('dist'), ...built('dist/help', 'a.js') }, 'dist', []],
  ])('%s', async (_, files, path, codes) => {
    const report = await checkAlone(['project/'], new MemoryFolder({ ...project, ...files }), { host })
    expect(report.folder.path).toBe(path)
    expect(report.findings.map(({ code }) => code)).toEqual(codes)
  })
  test('is the site where the project says so', async () => {
    const config = "export default { build: { outDir: 'dist' } }"
    const folder = new MemoryFolder({ ...project, 'vite.config.js': config, ...built('dist/client') })
    const report = await checkAlone(['project/'], folder, { host })
    expect(report.findings.map(({ code }) => code)).toEqual(['project/site-nested'])
  })
})

describe('a bundler that writes no page', () => {
  const project = {
    'package.json': '{"scripts":{"build":"rollup -c"},"devDependencies":{"rollup":"4"}}',
    'rollup.config.js': "export default { output: { file: 'public/build/bundle.js' } }",
    'public/build/bundle.js': '1',
  }
  test.each<[string, Record<string, string>, string]>([
    [
      'in the directory of the page that loads it',
      { 'public/index.html': page('/build/bundle.js') },
      'public',
    ],
    ['below a base path', { 'public/index.html': page('/crossings/build/bundle.js') }, 'public'],
    [
      'before it is built',
      { 'public/index.html': page('build/bundle.js'), 'public/build/bundle.js': '' },
      'public',
    ],
    ['in the project itself', { 'index.html': page('./public/build/bundle.js') }, '.'],
    [
      'where it is, beside a page of its own',
      { 'public/index.html': page('/build/bundle.js'), 'public/build/index.html': page('bundle.js') },
      'public/build',
    ],
    [
      'where it is, with a page that loads something else',
      { 'public/index.html': page('/a.js') },
      'public/build',
    ],
  ])('has its site %s', async (_, files, directory) => {
    const found = await surveyProject(new MemoryFolder({ ...project, ...files }))
    expect(found?.survey.publishDirectory?.value).toBe(directory)
  })
})

test.each<[string, Record<string, string>, string]>([
  [
    'around what a bundler writes',
    {
      'package.json': '{"scripts":{"build":"rollup -c"},"devDependencies":{"rollup":"4"}}',
      'rollup.config.js': "export default { output: { file: 'public/build/bundle.js' } }",
      'public/build/bundle.js': '1',
      'public/index.html': page('/build/bundle.js'),
    },
    'public/index.html',
  ],
  [
    'of a project that is its own site',
    {
      'package.json': '{"scripts":{"build":"shear in.css css/out.css"},"devDependencies":{"shear":"4"}}',
      'css/out.css': '',
      'js/bundle.js': '1',
      'index.html': page('/js/bundle.js'),
    },
    'index.html',
  ],
])('the pages %s are corrected by hand', async (_, files, file) => {
  const site = parseSite('https://skerryline.example/crossings/')
  const options = { site, host: presetNamed('files') }
  const { findings } = await checkAlone(['base/wrong-path'], new MemoryFolder(files), options)
  expect(findings.map(({ fix }) => fix.edits?.map((edit) => [edit.file, edit.write]))).toEqual([
    [[file, expect.stringMatching(/^\/crossings\/.*bundle\.js$/)]],
  ])
})

test('a script that calls the builder says where it writes by its own names', async () => {
  const files = {
    'package.json':
      '{"scripts":{"build":"node --enable-source-maps scripts/make.mjs"},"devDependencies":{"esbuild":"0.25"}}',
    'scripts/make.mjs':
      "import { join } from 'node:path'\nconst out = 'www'\nexport async function make() {\n  const js = join(out, 'js')\n  await build({ outdir: js })\n}",
  }
  const found = await surveyProject(new MemoryFolder(files))
  expect(found?.survey.publishDirectory).toMatchObject({
    value: 'www/js',
    from: { file: 'scripts/make.mjs' },
  })
  const unknown = {
    ...files,
    'scripts/make.mjs': 'build({ outdir: `${process.argv[2]}/js` })',
    ...built('site'),
  }
  const other = await checkAlone(['base/'], new MemoryFolder(unknown), {})
  expect(other.folder.path).toBe('site')
})

describe('a site that is the project itself', () => {
  const project = {
    'package.json': '{"scripts":{"build":"shear in.css css/out.css"},"devDependencies":{"shear":"4"}}',
    'index.html': '<!doctype html><link rel=stylesheet href=css/out.css>',
    'css/out.css': '',
    '.git/HEAD': 'ref: refs/heads/main',
    'node_modules/shear/src/index.ts': '',
    'node_modules/shear/dist/shear.js': '',
  }
  const host = presetNamed('files')
  test('does not ship the packages and the repository beside it', async () => {
    const report = await checkAlone(['delivery/', 'asset/', 'fresh/'], new MemoryFolder(project), { host })
    expect(report.findings).toEqual([])
    expect(report.folder.files).toBe(3)
    expect(report.survey.remarks).toEqual([
      'No directory here holds a built page, and the project itself has an index.html: it is taken as the site.',
      'The site is the project itself: .git and node_modules are not looked at. See that they do not ship.',
    ])
  })
  test('ships the packages that its pages load', async () => {
    const index = '<!doctype html><script src=node_modules/shear/dist/shear.js></script>'
    const folder = new MemoryFolder({ ...project, 'index.html': index })
    const report = await checkAlone(['asset/'], folder, { host })
    expect(report.findings).toEqual([])
    expect(report.folder.files).toBe(5)
  })
})

test('a manifest of thousands of dependencies is read in one go', async () => {
  const names = Array.from({ length: 40_000 }, (_, index) => `part-${index}`)
  const dependencies = Object.fromEntries(names.map((name) => [name, '1.0.0']))
  const manifest = { scripts: { build: 'vite build' }, dependencies, devDependencies: { vite: '8' } }
  const folder = new MemoryFolder({
    'package.json': JSON.stringify(manifest, null, 1),
    'dist/index.html': '<!doctype html><p>Sailings',
  })
  const report = await checkAlone(['base/'], folder, {})
  expect(report.survey.framework).toMatchObject({ value: 'vite', from: { line: 40_008 } })
})
