import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { folderWith } from '../../../test/support/folders.ts'
import type { Fixable } from '../../core/edits/outcome.ts'
import type { Finding } from '../../core/model/report.ts'
import { type Tried, tryFixes } from './try-fixes.ts'

function finding(fingerprint: string): Finding {
  return { code: `t/${fingerprint}`, fingerprint, severity: 'blocker' } as Finding
}

/** The fix of a finding, which writes "right" into the file that goes by its name. */
function fixOf(name: string): Fixable {
  const edit = {
    file: name,
    line: 1,
    write: 'right',
    range: { start: 0, end: 5 },
    expects: 'wrong',
    text: 'right',
  }
  return { finding: finding(name), edits: [edit], variables: new Map() } as Fixable
}

/** A folder of wrong files, and what is found of it by those that are right. */
function tried(found: (right: readonly string[]) => string[]): Tried {
  const names = ['a', 'b', 'c']
  return {
    root: folderWith(Object.fromEntries(names.map((name) => [name, 'wrong']))),
    directory: '',
    output: null,
    command: null,
    before: names.map(finding),
    check: async (root) =>
      found(names.filter((name) => readFileSync(join(root, name), 'utf8') === 'right')).map(finding),
    onOutput: () => {},
    onStep: () => {},
    signal: new AbortController().signal,
  }
}

const fixes = ['a', 'b', 'c'].map(fixOf)

test('fixes that each work alone and not together are not all proved', async () => {
  const { states } = await tryFixes(
    fixes,
    tried((right) =>
      right.includes('a') && right.includes('b')
        ? ['new', ...['c'].filter((name) => !right.includes(name))]
        : ['a', 'b', 'c'].filter((name) => !right.includes(name)),
    ),
  )
  expect(Object.fromEntries(states)).toEqual({ a: 'proved', b: 'worse', c: 'proved' })
})

test('a fix that is not enough leaves the others proved together', async () => {
  const { states } = await tryFixes(
    fixes,
    tried((right) => ['a', 'b', 'c'].filter((name) => name === 'a' || !right.includes(name))),
  )
  expect(Object.fromEntries(states)).toEqual({ a: 'not enough', b: 'proved', c: 'proved' })
})
