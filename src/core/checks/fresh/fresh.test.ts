import { mkdirSync, mkdtempSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { checkAlone, checkCases, codesOf, page } from '../../../../test/support/cases.ts'
import { DiskFolder } from '../../../node/disk-folder.ts'
import { presetNamed } from '../../host/presets.ts'
import { parseSite } from '../../model/site.ts'

const script = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'
const project = {
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/b/' }",
  'src/a.js': '',
  'dist/index.html': page(script),
  'dist/assets/app-AbCdEf12.js': '',
}

describe('fresh/source-newer by copies', () => {
  const copied = { ...project, 'public/robots.txt': 'Allow: /', 'dist/robots.txt': 'Allow: /' }
  checkCases('fresh/source-newer', {
    'copied as they are': { files: copied, finds: [] },
    'a file that is another in the build': {
      files: { ...copied, 'public/list.json': '[2]', 'dist/list.json': '[1]' },
      finds: ['fresh/source-newer caution ×1'],
      says: ['The build copies public/list.json as it is, and list.json in dist holds something else'],
    },
  })
})

describe('fresh/copies-differ', () => {
  const copy = (directory: string, hash: string): Record<string, string> => ({
    [`${directory}/index.html`]: page(script.replace('AbCdEf12', hash)),
    [`${directory}/assets/app-${hash}.js`]: '',
  })
  checkCases('fresh/copies-differ', {
    'one of another build': {
      files: { ...project, ...copy('docs', 'Zy9xWv87') },
      finds: ['fresh/copies-differ caution ×1'],
      says: ['docs holds the same site as dist, and index.html is not the same in both'],
    },
    'the same twice': { files: { ...project, ...copy('docs', 'AbCdEf12'), 'docs/CNAME': 'x' }, finds: [] },
    'the same names, and other content': {
      files: { ...project, ...copy('docs', 'AbCdEf12'), 'docs/assets/app-AbCdEf12.js': 'old()' },
      finds: ['fresh/copies-differ caution ×1'],
      says: ['assets/app-AbCdEf12.js is not the same'],
    },
    'another site': {
      files: { ...project, 'docs/index.html': page('<title>Handbook</title>') },
      finds: [],
    },
    'the sources that are copied with changes': {
      files: {
        ...project,
        'dist/index.html': page(''),
        'src/index.html': page(''),
        'src/a.js': '1',
        'dist/a.js': '2',
      },
      finds: [],
    },
    'the template beside other sources': {
      files: {
        ...project,
        'docs/index.html': page(script),
        'docs/main.js': '',
        'docs/ferry.svg': '',
      },
      finds: [],
    },
    'the template of the page': {
      files: { ...project, 'web/index.html': page('<script type="module" src="/src/a.js"></script>') },
      finds: [],
    },
  })
})

describe('fresh/two-builds', () => {
  const old = { 'dist/assets/app-Zy9xWv87.js': 'old()' }
  checkCases('fresh/two-builds', {
    'one build': { files: project, finds: [] },
    'two builds': {
      files: { ...project, ...old },
      finds: ['fresh/two-builds caution ×1'],
      says: ['app-Zy9xWv87.js'],
    },
    'two chunks of one name, both requested': {
      files: {
        ...project,
        ...old,
        'dist/assets/app-AbCdEf12.js': 'import("./app-Zy9xWv87.js")',
      },
      finds: [],
    },
    'files that are named by their hashes alone': {
      files: {
        ...project,
        'dist/index.html': page('<script type="module" src="/b/4f7d20aa4f7d20aa4f7d.js"></script>'),
        'dist/4f7d20aa4f7d20aa4f7d.js': '',
        'dist/e311c2fde867f8ae78ae.js': '',
      },
      finds: [],
    },
    'a file of another name that nothing requests': {
      files: { ...project, 'dist/assets/other-Zy9xWv87.js': '' },
      finds: [],
    },
  })
})

describe('fresh/config-newer', () => {
  checkCases('fresh/config-newer', {
    'a base path that was changed after the build': {
      files: { ...project, 'vite.config.js': "export default { base: '/elsewhere/' }" },
      finds: ['fresh/config-newer caution ×1'],
      says: ['vite.config.js:1 says /elsewhere/'],
    },
    'a base path that cannot be known': {
      files: { ...project, 'vite.config.js': 'export default { base: f() }' },
      finds: [],
    },
  })
})

describe('project/development-build', () => {
  checkCases('project/development-build', {
    'the JSX runtime of development': {
      files: { ...project, 'dist/assets/app-AbCdEf12.js': '(0,h.jsxDEV)("p",{})' },
      finds: ['project/development-build blocker ×1'],
    },
    'modules evaluated from texts': {
      files: {
        ...project,
        'dist/assets/app-AbCdEf12.js': 'eval("x();//# sourceURL=webpack://s/./src/a.js?")',
      },
      finds: ['project/development-build blocker ×1'],
    },
    'a client for hot replacement in a build for development': {
      files: { ...project, 'dist/assets/app-AbCdEf12.js': 'self.webpackHotUpdates = {}\nx()\n' },
      finds: ['project/development-build blocker ×1'],
    },
    'the same in a build that is minified as for production': {
      files: { ...project, 'dist/assets/app-AbCdEf12.js': `self.webpackHotUpdates={};${'x();'.repeat(200)}` },
      finds: ['project/development-build caution ×1'],
      says: ['Leave the plugin for hot replacement out of the configuration for production.'],
    },
    'a script that no page leads to': {
      files: { ...project, 'dist/unused.js': 'h.jsxDEV("p",{})' },
      finds: [],
    },
  })
})

describe('fresh/source-newer', () => {
  /** A project whose files have these ages, in minutes. */
  async function checked(ages: Readonly<Record<string, number>>): Promise<string[]> {
    const root = mkdtempSync(join(tmpdir(), 'wardoscope-times-'))
    const now = Date.now() / 1000
    for (const [path, text] of Object.entries({ ...project, 'src/b.js': '' })) {
      mkdirSync(join(root, path, '..'), { recursive: true })
      writeFileSync(join(root, path), text)
      const time = now - (ages[path] ?? 60) * 60
      utimesSync(join(root, path), time, time)
    }
    const options = { site: parseSite('https://skerryline.example/b/'), host: presetNamed('fallback') }
    return codesOf((await checkAlone(['fresh/'], await DiskFolder.open(root), options)).findings)
  }

  test('a source that was saved after the build', async () => {
    expect(await checked({ 'src/a.js': 1, 'dist/index.html': 10 })).toEqual(['fresh/source-newer caution ×1'])
  })

  test('a build after the last change', async () => {
    expect(await checked({ 'src/a.js': 10, 'dist/index.html': 1 })).toEqual([])
  })

  test('a fresh checkout, all of one time, tells nothing', async () => {
    expect(
      await checked({
        'src/a.js': 1,
        'src/b.js': 1,
        'dist/index.html': 10,
        'vite.config.js': 1,
        'package.json': 1,
      }),
    ).toEqual([])
  })
})

describe('the age of the configuration', () => {
  const since = Date.UTC(2026, 0, 1) / 1000
  /** Files with their ages in minutes after the first. */
  const said = async (ages: Readonly<Record<string, number>>): Promise<string | undefined> => {
    const root = mkdtempSync(join(tmpdir(), 'fresh-'))
    const files: Record<string, string> = {
      ...project,
      'dist/index.html': page('<script src="/a.js"></script>'),
      'dist/a.js': '',
    }
    for (const [path, text] of Object.entries(files)) {
      mkdirSync(join(root, path, '..'), { recursive: true })
      writeFileSync(join(root, path), text)
      const at = since + 60 * (ages[path] ?? 0)
      utimesSync(join(root, path), at, at)
    }
    const { findings } = await checkAlone(['base/wrong-path', 'fresh/'], await DiskFolder.open(root, 'x'), {
      site: parseSite('https://skerryline.example/b/'),
      host: presetNamed('files'),
    })
    expect(codesOf(findings)).toEqual(['base/wrong-path blocker ×1'])
    return findings[0]?.cause
  }
  test('is said where times tell', async () => {
    const built = { 'dist/index.html': 10, 'dist/a.js': 10 }
    expect(await said({ ...built, 'vite.config.js': 20 })).toContain('it was changed after this build')
    expect(await said({ ...built, 'vite.config.js': 5 })).toContain('was made by another command')
    expect(await said({})).toContain('this build is older than that, or was made by another command')
  })
})
