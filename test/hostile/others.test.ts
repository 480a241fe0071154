import { expect, test } from 'vitest'
import * as core from '../../src/core/index.ts'
import { walk } from '../../src/core/model/folder.ts'
import { FolderIndex } from '../../src/core/requests/folder-index.ts'
import { respond } from '../../src/rehearse/respond.ts'
import { folders } from './folders.mjs'
import { archiveFaultIn, requestFaultIn } from './others.mjs'

test('a changed archive is read as it was packed, or refused in one sentence', async () => {
  const faults: string[] = []
  for (let seed = 0; seed < 600; seed++) {
    const fault = await archiveFaultIn({ ...core, walk }, folders, seed)
    if (fault !== null) faults.push(`seed ${seed}: ${fault}`)
  }
  expect(faults).toEqual([])
})

test.each(['files', 'fallback', 'clean-urls'] as const)(
  'whatever is requested of the host %s, the answer is a file of the folder or none',
  async (name) => {
    const [files = {}] = folders
    const stage = {
      host: core.presetNamed(name),
      site: core.parseSite('https://skerryline.example/b/'),
      files: new FolderIndex(Object.keys(files).map((path) => ({ path }))),
      folder: new core.MemoryFolder(files),
    }
    const faults: string[] = []
    for (let seed = 0; seed < 2_000; seed++) {
      const fault = await requestFaultIn(respond, stage, files, seed)
      if (fault !== null) faults.push(`seed ${seed}: ${fault}`)
    }
    expect(faults).toEqual([])
  },
)
