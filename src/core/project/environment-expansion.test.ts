import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import nextEnvironment from '@next/env'
import fc from 'fast-check'
import { loadEnv } from 'vite'
import { afterEach, describe, expect, test } from 'vitest'
import type { Expansion } from '../frameworks/framework.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { expandAll } from './environment-expansion.ts'
import { readEnvironmentFiles } from './environment-files.ts'

// One text, read by Vite's own loader and by ours. Every name begins as public variables do, so that the loader shows it.
const lines = [
  'VITE_PLAIN=plain',
  'VITE_EMPTY=',
  'VITE_BLANKS=  blanks around  ',
  'VITE_INNER=two words',
  "VITE_SINGLE='single quoted'",
  'VITE_DOUBLE="double quoted"',
  'VITE_BACK=`back quoted`',
  'VITE_HASH=before # after',
  'VITE_HASH_TIGHT=before#after',
  'VITE_HASH_QUOTED="before # after"',
  "VITE_HASH_SINGLE='before # after'",
  'VITE_EQUALS=a=b=c',
  'VITE_URL=https://api.skerryline.example/v1?a=1&b=2',
  'VITE_NEWLINE="a\\nb"',
  "VITE_NEWLINE_SINGLE='a\\nb'",
  'export VITE_EXPORTED=exported',
  '  VITE_INDENTED=indented',
  'VITE_SPACED = spaced',
  'VITE_JSON={"a":"b"}',
  'VITE_QUOTES_INSIDE=say "hi"',
  'VITE_APOSTROPHE="it\'s"',
  'VITE_MIXED=\'say "hi"\'',
  '# VITE_COMMENTED=no',
  'VITE_MULTI="first',
  'second"',
  'VITE_A=one',
  'VITE_B=$VITE_A',
  'VITE_C=${VITE_A}',
  'VITE_D=${VITE_A}-${VITE_B}',
  'VITE_E=pre$VITE_A/post',
  'VITE_F=${VITE_NONE}',
  'VITE_G=${VITE_NONE:-fallback}',
  'VITE_H=${VITE_A:-fallback}',
  'VITE_I=${VITE_NONE-fallback}',
  'VITE_J=${VITE_A:+set}',
  'VITE_K=${VITE_NONE:+set}',
  'VITE_L=${VITE_A+set}',
  'VITE_M=${VITE_NONE:-${VITE_A:-z}}',
  'VITE_N=${VITE_NONE:-${VITE_NONE:-z}}',
  'VITE_O=cost$5',
  'VITE_P=pa$$word',
  'VITE_Q=\\$VITE_A',
  'VITE_R=a\\$b$VITE_A',
  "VITE_S='$VITE_A'",
  'VITE_T="${VITE_A}"',
  'VITE_U=$VITE_A$VITE_B',
  'VITE_V=${VITE_LATER}',
  'VITE_LATER=later',
  'VITE_W=$',
  'VITE_X=a$',
  'VITE_Y=${',
  'VITE_Z=${}',
  'VITE_AA=${VITE_A',
  'VITE_AB=$VITE_A}',
  'VITE_AC=${VITE_NONE:-https://api.example:8080/v1}',
  'VITE_AD=${VITE_EMPTY:-empty}',
  'VITE_AE=${VITE_EMPTY}x',
  'VITE_AF=$VITE_A-$VITE_B',
  'VITE_AG=${VITE_A}_${VITE_PLAIN}',
  'VITE_AH=%VITE_A%',
  'VITE_AI=${VITE_A:-}',
  'VITE_AJ=${VITE_NONE:-a b c}',
  'VITE_AK="$VITE_A $VITE_B"',
  'VITE_AL=$vite_a',
  'VITE_AM=$1$2',
  'VITE_AN=ends with $VITE_A',
  'VITE_AO=${VITE_A}${VITE_A}${VITE_A}',
  'VITE_A=twice',
]

const made: string[] = []
afterEach(() => {
  for (const folder of made.splice(0)) rmSync(folder, { recursive: true, force: true })
})

function folderOf(files: Readonly<Record<string, string>>): string {
  const folder = mkdtempSync(join(tmpdir(), 'wardoscope-env-'))
  made.push(folder)
  for (const [name, text] of Object.entries(files)) writeFileSync(join(folder, name), text)
  return folder
}

async function ours(
  files: Readonly<Record<string, string>>,
  kind: Expansion,
): Promise<Record<string, string>> {
  const { values } = await readEnvironmentFiles(new MemoryFolder(files), Object.keys(files), kind)
  return Object.fromEntries(values.forSearching())
}

describe('as Vite loads them', () => {
  test('a file of more than sixty lines', async () => {
    const files = { '.env': lines.join('\n') }
    expect(await ours(files, 'current')).toEqual(loadEnv('production', folderOf(files), 'VITE_'))
  })

  test.each(lines.filter((line) => /^VITE_\w+=.*\$/.test(line)))('%s by itself', async (line) => {
    const files = { '.env': `VITE_A=one\nVITE_B=two\n${line}\n` }
    expect(await ours(files, 'current')).toEqual(loadEnv('production', folderOf(files), 'VITE_'))
  })

  test('a later file wins, and what an earlier one made of the value is made of the later one', async () => {
    const files = {
      '.env': 'VITE_A=one\nVITE_B=$VITE_A',
      '.env.production': 'VITE_A=uno\nVITE_C=$VITE_B$VITE_A',
    }
    expect(await ours(files, 'current')).toEqual(loadEnv('production', folderOf(files), 'VITE_'))
  })

  test('lines with the ends of other systems', async () => {
    const files = { '.env': 'VITE_A=one\r\nVITE_B="two"\r\nVITE_C=$VITE_A\r\n' }
    expect(await ours(files, 'current')).toEqual(loadEnv('production', folderOf(files), 'VITE_'))
  })

  const name = fc.constantFrom('VITE_A', 'VITE_B', 'VITE_C', 'VITE_D')
  const word = fc.stringMatching(/^[a-z0-9/.:]{0,6}$/)
  const piece = fc.oneof(
    word,
    name.map((each) => `\${${each}}`),
    fc
      .tuple(name, fc.constantFrom(':-', '-', ':+', '+'), word)
      .map(([each, operator, text]) => `\${${each}${operator}${text}}`),
  )
  const value = fc.array(piece, { maxLength: 4 }).map((pieces) => pieces.join('-'))

  test('whatever is put together from names, defaults and words without a circle', async () => {
    await fc.assert(
      fc.asyncProperty(value, value, value, async (b, c, d) => {
        // Each is made of those before it.
        const text = [
          'VITE_A=one',
          `VITE_B=${b.replaceAll(/VITE_[BCD]/g, 'VITE_A')}`,
          `VITE_C=${c.replaceAll(/VITE_[CD]/g, 'VITE_B')}`,
          `VITE_D=${d.replaceAll('VITE_D', 'VITE_C')}`,
        ].join('\n')
        const files = { '.env': text }
        expect(await ours(files, 'current')).toEqual(loadEnv('production', folderOf(files), 'VITE_'))
      }),
      { numRuns: 150 },
    )
  })
})

test('as Next loads them, with its own loader beside ours', async () => {
  const files = {
    '.env': 'A=one\nB=$A\nC=${NONE:-x}\nE=\\$A\nF=cost\nG=${NONE:-${A}}\nH=pre$A/post\nI=${B}${C}',
    '.env.production': 'A=uno',
  }
  const before = { ...process.env }
  // Under a test's own mode it leaves the files of production out.
  Object.assign(process.env, { NODE_ENV: 'production' })
  const { combinedEnv } = nextEnvironment.loadEnvConfig(
    folderOf(files),
    false,
    { info() {}, error() {} },
    true,
  )
  process.env = before
  const found = await ours(files, 'next')
  for (const [key, expected] of Object.entries(found))
    expect([key, combinedEnv[key]]).toEqual([key, expected])
})

test.each<[Expansion, string, string]>([
  ['older', 'cost$5', 'cost'],
  ['older', '${NONE:-x}', ':-x}'],
  ['older', '$A/v1', 'one/v1'],
  ['none', '$A/v1', '$A/v1'],
  ['current', 'cost$5', 'cost$5'],
])('%s writes %s as %s', (kind, value, expected) => {
  expect(
    expandAll(
      new Map([
        ['A', 'one'],
        ['X', value],
      ]),
      kind,
    ).get('X'),
  ).toBe(expected)
})

describe.each<Expansion>(['current', 'next', 'older', 'none'])('%s ends', (kind) => {
  const wave = (count: number): [string, string][] =>
    Array.from({ length: count }, (_, index) => [
      `A${index}`,
      index === 0 ? 'x'.repeat(99) : `\${A${index - 1}}\${A${index - 1}}`,
    ])
  test.each<[string, readonly [string, string][]]>([
    [
      'a circle',
      [
        ['A', '$B'],
        ['B', '$A'],
      ],
    ],
    ['a name in itself', [['A', 'x$A']]],
    [
      'a value that is the pattern of a replacement',
      [
        ['A', 'x$&'],
        ['B', '$A'],
        ['C', '${NONE:-$&}'],
      ],
    ],
    [
      'an escaped name that is put in again',
      [
        ['A', '\\$A\\$A'],
        ['B', 'a$A'],
      ],
    ],
    [
      'a name that is made of a dollar and what is put in',
      [
        ['A', '$$$B'],
        ['B', 'A'],
      ],
    ],
    [
      'a name that every object has',
      [
        ['A', '$constructor'],
        ['B', '${toString}${__proto__}'],
        ['constructor', '$A'],
      ],
    ],
    ['values that double sixty times', wave(60)],
    [
      'a chain of ten thousand',
      Array.from({ length: 10_000 }, (_, index): [string, string] => [`A${index}`, `$A${index + 1}`]),
    ],
    [
      'half a megabyte of dollars',
      [
        ['A', '$'.repeat(500_000)],
        ['B', '${'.repeat(100_000)],
      ],
    ],
  ])('with %s', (_, values) => {
    const made = expandAll(new Map(values), kind)
    expect(made.size).toBe(values.length)
    for (const text of made.values()) expect(text.length).toBeLessThanOrEqual(600_000)
  })

  test('with anything', () => {
    const text = fc.string({
      unit: fc.constantFrom('$', '{', '}', 'A', 'B', ':', '-', '+', '\\', '&', 'x'),
      maxLength: 12,
    })
    fc.assert(
      fc.property(
        text,
        text,
        text,
        (a, b, c) =>
          expandAll(
            new Map([
              ['A', a],
              ['B', b],
              ['C', c],
            ]),
            kind,
          ).size === 3,
      ),
      { numRuns: 3_000 },
    )
  })
})
