import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { frameworks } from '../src/core/frameworks/index.ts'
import { check } from '../src/core/pipeline/check.ts'
import { openProject } from '../src/core/pipeline/open.ts'
import { DiskFolder } from '../src/node/disk-folder.ts'
import { folderWith } from './support/folders.ts'

/** Code that leaves a file behind when it runs, in the syntax of a configuration file of this name. */
function planted(file: string, proof: string): string {
  const write = `require('node:fs').writeFileSync(${JSON.stringify(proof)}, 'ran')`
  const asModule = `import { writeFileSync } from 'node:fs'\nwriteFileSync(${JSON.stringify(proof)}, 'ran')\nexport default () => { writeFileSync(${JSON.stringify(proof)}, 'ran'); return {} }\n`
  if (/\.(?:json|jsonc)$|rc$/.test(file))
    return `{"a": "\${${write}}", "__proto__": {"toString": "${proof}"}}`
  if (/\.ya?ml$/.test(file))
    return `baseURL: !!js/function 'function(){${write.replaceAll("'", '"')}}'\nsdk: flutter\n`
  if (file.endsWith('.toml')) return `baseURL = "\${${proof}}"\n`
  return /\.c[jt]s$/.test(file) ? `${write}\nmodule.exports = {}\n` : asModule
}

const cases = frameworks.flatMap(({ name, markers, configFiles }) =>
  configFiles.map((file) => [name, file, markers[0] ?? null] as const),
)

test.each(cases)('%s: nothing in %s is run', async (_, file, marker) => {
  const proof = join(folderWith({}), 'proof.txt')
  const manifest = JSON.stringify({
    name: 'x',
    scripts: { build: `node -e "require('fs').writeFileSync('${proof}','ran')"`, prebuild: `touch ${proof}` },
    dependencies: marker ? { [marker]: '1' } : {},
  })
  const folder = folderWith({
    'package.json': manifest,
    [file]: planted(file, proof),
    'index.html': '<p>',
    'build.mjs': planted('build.mjs', proof),
  })
  const opened = await DiskFolder.open(folder)
  const surveyed = await openProject(opened)
  expect(surveyed?.survey.framework?.value ?? null).not.toBe('')
  await check(opened, { build: { folder: opened, path: '.' } })
  expect(existsSync(proof)).toBe(false)
})

test('the planted code would leave its proof, were it run', async () => {
  const proof = join(folderWith({}), 'proof.txt')
  const folder = folderWith({ 'a.mjs': planted('a.mjs', proof) })
  await import(join(folder, 'a.mjs'))
  expect(existsSync(proof)).toBe(true)
})
