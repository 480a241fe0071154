import { expect, test } from 'vitest'
import { MemoryFolder } from '../model/memory-folder.ts'
import { namedAddresses } from './addresses.ts'
import { surveyProject } from './survey-project.ts'

const astro = '"devDependencies":{"astro":"5.0.0"}'
const nothing = { folder: null, path: '' }

test.each<[string, Record<string, string>, string[]]>([
  ['nothing', { 'package.json': `{${astro}}` }, []],
  [
    'a configured address, without its last slash',
    {
      'package.json': `{${astro}}`,
      'astro.config.mjs': "export default {\n site: 'https://skerryline.example/a' }",
    },
    ['configuration https://skerryline.example/a/ astro.config.mjs:2'],
  ],
  [
    'a configured address that is computed',
    { 'package.json': `{${astro}}`, 'astro.config.mjs': 'export default { site: address() }' },
    [],
  ],
  [
    'a domain file and a homepage',
    {
      'package.json': `{"homepage":"https://skerryline.example/crossings",${astro}}`,
      'public/CNAME': 'Ferries.Skerryline.Example\n',
    },
    [
      'domain file https://ferries.skerryline.example/ public/CNAME:1',
      'homepage https://skerryline.example/crossings/ package.json:1',
    ],
  ],
  [
    'a homepage that is where the sources are',
    {
      'package.json': `{"homepage":"https://code.example/skerry/site","repository":"https://code.example/skerry/site.git",${astro}}`,
    },
    [],
  ],
  [
    'the remote of a repository',
    {
      'package.json': `{${astro}}`,
      '.git/config':
        '[core]\n\tbare = false\n[remote "origin"]\n\turl = git@code.example:skerry/crossings.git\n\tfetch = x\n',
    },
    ['repository /crossings/ .git/config:4'],
  ],
  [
    'a remote that is named as a domain',
    {
      'package.json': `{${astro}}`,
      '.git/config': '[remote "origin"]\n\turl = https://code.example/skerry/skerry.example\n',
    },
    ['repository / .git/config:2'],
  ],
])('%s', async (_, files, expected) => {
  const folder = new MemoryFolder(files)
  const found = await surveyProject(folder)
  const addresses = await namedAddresses(
    folder,
    nothing,
    found?.survey ?? { siteAddress: null, definition: null },
  )
  expect(addresses.map(({ value, from, kind }) => `${kind} ${value} ${from.file}:${from.line}`)).toEqual(
    expected,
  )
})
