import { expect, test } from 'vitest'
import { checkAlone, page } from '../../../test/support/cases.ts'
import { presetNamed } from '../host/presets.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { surveyProject } from '../project/survey-project.ts'

const project = (config: string): Record<string, string> => ({
  'package.json': JSON.stringify({ scripts: { build: 'umi build' }, dependencies: { umi: '4' } }),
  '.umirc.ts': `export default ${config}\n`,
})

test.each([
  ["{ outputPath: 'out', publicPath: '/a/', base: '/b/' }", ['umi', 'out', '/a/', '/b/', 'history']],
  ["{ history: { type: 'hash' } }", ['umi', 'dist', '/', undefined, 'hash']],
])('%s', async (config, readings) => {
  const { survey } = (await surveyProject(new MemoryFolder(project(config)))) ?? {}
  expect([
    survey?.framework?.value,
    survey?.publishDirectory?.value,
    survey?.basePath?.value,
    survey?.routerBase?.base.value,
    survey?.router?.value,
  ]).toEqual(readings)
  expect(survey?.prefixes?.value).toEqual(['UMI_APP_'])
})

test.each([
  ['{}', ['base/router-path', 'base/wrong-path'], ["base: '/b/',", "publicPath: '/b/',"]],
  ["{ history: { type: 'hash' } }", ['base/wrong-path'], ["publicPath: '/b/',"]],
])('Umi with %s below a path gets what its files and its router need', async (config, codes, edits) => {
  const files = {
    ...project(config),
    'src/pages/index.tsx': 'export default () => null',
    'dist/index.html': page('<script src="/umi.js"></script>'),
    'dist/umi.js': '',
  }
  const { findings } = await checkAlone(['base/wrong-path', 'base/router-path'], new MemoryFolder(files), {
    site: parseSite('https://skerryline.example/b/'),
    host: presetNamed('fallback'),
  })
  expect(findings.map(({ code }) => code).sort()).toEqual(codes)
  const written = findings.flatMap(({ fix }) => fix.edits.map(({ write }) => write))
  expect([...new Set(written)].sort()).toEqual(edits)
})
