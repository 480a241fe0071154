import { describe, expect, test } from 'vitest'
import { checkAlone } from '../../../test/support/cases.ts'
import { climbs, joinUp, within } from '../model/folder.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { belowProject, projectRoot, resolvePaths } from '../model/project-path.ts'

test.each([
  [['a', '../b'], 'b'],
  [['a', '../../b'], '../b'],
  [['..', '..', 'a'], '../../a'],
  [['a/b', '../../../c/../d'], '../d'],
  [['', './a/'], 'a'],
])('%j is %s', (parts, expected) => {
  expect(joinUp(...parts)).toBe(expected)
  expect(climbs(expected)).toBe(expected.startsWith('..'))
})

test.each([
  [[projectRoot, 'dist'], 'dist'],
  [[projectRoot, '../out'], '../out'],
  [[`${projectRoot}/apps/site`, '../../..', 'out'], '../out'],
  [[projectRoot], ''],
  [['dist', '../out'], 'out'],
  [['a', '/srv/out'], null],
])('%j leads to %j from the project', (parts, expected) => {
  expect(belowProject(resolvePaths(parts))).toBe(expected)
})

test('a folder reads beside itself as far as what was opened goes, and no further', async () => {
  const repository = new MemoryFolder({ 'a.txt': '1', 'apps/site/b.txt': '2', 'out/c.txt': '3' })
  const site = within(repository, 'apps/site')
  expect(new TextDecoder().decode(await site.read('../../a.txt'))).toBe('1')
  expect(new TextDecoder().decode(await within(site, '../../out').read('c.txt'))).toBe('3')
  // Not the file of that name at the top.
  await expect(site.read('../../../a.txt')).rejects.toThrow()
  expect(await site.stat('../../../a.txt')).toBeNull()
  await expect(repository.read('../a.txt')).rejects.toThrow()
})

describe('a project that writes and reads beside itself', () => {
  const manifest = '{"name":"site","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}'
  const repository = (outDir: string, more: Record<string, string> = {}): Record<string, string> => ({
    'package.json': '{"workspaces":["apps/*"]}',
    'apps/site/package.json': manifest,
    'apps/site/vite.config.ts': `import { resolve } from 'node:path'\nexport default { base: '/b/', envDir: '../../env', build: { outDir: ${outDir} } }`,
    'apps/site/src/a.ts': 'fetch(`${import.meta.env.VITE_API}/v1/list`)',
    'env/.env.production': 'VITE_API=https://api.skerryline.net',
    'out/web/index.html': '<script type=module src=/b/a.js></script>',
    'out/web/a.js': 'fetch(`https://api.skerryline.net/v1/list`)',
    ...more,
  })
  test.each([
    ["'../../out/web'"],
    ["resolve(__dirname, '../../out/web')"],
    ["resolve(import.meta.dirname, '../..', 'out/web')"],
    ["new URL('../../out/web', import.meta.url).pathname"],
    ["fileURLToPath(new URL('../../out/web', import.meta.url))"],
    ['`${__dirname}/../../out/web`'],
  ])('outDir: %s', async (outDir) => {
    const report = await checkAlone(['project/', 'env/', 'asset/'], new MemoryFolder(repository(outDir)))
    expect(report.findings).toEqual([])
    expect(report.folder).toMatchObject({ path: '../../out/web', files: 2 })
    expect(report.environment).toMatchObject([
      { name: 'VITE_API', state: 'injected', definedIn: [{ file: '../../env/.env.production', line: 1 }] },
    ])
    expect(JSON.stringify(report)).not.toContain('api.skerryline.net')
  })
  test('what leaves the repository is not read, and that is said', async () => {
    const files = repository("'../../../out/web'", { 'apps/site/out/web/index.html': '' })
    const report = await checkAlone(['project/'], new MemoryFolder(files))
    expect(report.findings.map(({ code }) => code)).toEqual(['project/not-built'])
    expect(report.survey.remarks.join(' ')).toContain(
      'The publish directory ../../../out/web is outside of the project: it is not there, or outside of the repository',
    )
  })
})
