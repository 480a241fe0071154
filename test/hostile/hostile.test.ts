import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import * as core from '../../src/core/index.ts'
import { folders } from './folders.mjs'
import { faultIn } from './judge.mjs'
import { mutated } from './mutate.mjs'

const inputs = 2_000
const groups = 10

test.each(folders.map((files, index) => [index, files] as const))(
  'a sound folder of shape %i is none that these rules refuse',
  async (_, files) => {
    expect(await faultIn(core, files)).toBeNull()
  },
)

test.each(Array.from({ length: groups }, (_, group) => group))(
  'folders with a few random changes end in a report or one sentence, group %i',
  async (group) => {
    const faults: string[] = []
    for (let seed = group; seed < inputs; seed += groups) {
      const fault = await faultIn(core, mutated(folders, seed))
      if (fault !== null) faults.push(`seed ${seed}: ${fault}`)
    }
    expect(faults).toEqual([])
  },
)

const found = join(import.meta.dirname, 'found')
const kept = existsSync(found) ? readdirSync(found) : []

test.each(kept)('%s, which once failed, does no more', async (name) => {
  const files = JSON.parse(readFileSync(join(found, name), 'utf8')) as Record<string, string>
  expect(await faultIn(core, files)).toBeNull()
})
