import { expect, test } from 'vitest'
import type { Finding } from '../model/report.ts'
import { applyWaivers, type Waiver } from './waivers.ts'

const today = '2026-11-25'

function finding(code: string, files: readonly string[], source: string | null = null): Finding {
  const place = {
    line: 1,
    column: 1,
    excerpt: null,
    highlight: null,
    request: null,
    status: null,
    source: null,
  }
  return {
    code,
    severity: 'blocker',
    site: 'https://skerryline.example/',
    sites: ['https://skerryline.example/'],
    title: '',
    impact: '',
    cause: '',
    count: files.length,
    places: files.map((file) => ({ ...place, file })),
    source: source === null ? null : { file: source, line: 1, column: 1 },
    fix: { steps: [], edits: [] },
    fingerprint: '',
    seen: ['check'],
    waived: false,
    waiver: null,
  }
}

const waiver = (more: Partial<Waiver> = {}): Waiver => ({ code: 'asset/missing', reason: 'known', ...more })

test.each<[string, Waiver, Finding, boolean]>([
  ['the code', waiver(), finding('asset/missing', ['a.html']), true],
  ['another code', waiver({ code: 'asset/insecure' }), finding('asset/missing', ['a.html']), false],
  ['a code that only begins so', waiver({ code: 'asset/miss' }), finding('asset/missing', ['a.html']), false],
  [
    'files that all fit',
    waiver({ where: 'old/**' }),
    finding('asset/missing', ['old/a.html', 'old/b/c.html']),
    true,
  ],
  [
    'one file that does not fit',
    waiver({ where: 'old/**' }),
    finding('asset/missing', ['old/a.html', 'b.html']),
    false,
  ],
  ['files with a dot in front', waiver({ where: '**' }), finding('asset/missing', ['.well-known/x']), true],
  ['no place and no source', waiver({ where: '**' }), finding('asset/missing', []), false],
  [
    'no place, and a source that fits',
    waiver({ where: 'src/**' }),
    finding('asset/missing', [], 'src/a.ts'),
    true,
  ],
  [
    'no place, and a source that does not',
    waiver({ where: 'lib/**' }),
    finding('asset/missing', [], 'src/a.ts'),
    false,
  ],
  [
    'a source that fits, whatever the places',
    waiver({ where: 'src/**' }),
    finding('asset/missing', ['a.html'], 'src/a.ts'),
    true,
  ],
  ['its last day', waiver({ until: today }), finding('asset/missing', ['a.html']), true],
  ['the day after its last', waiver({ until: '2026-11-24' }), finding('asset/missing', ['a.html']), false],
  ['a later day', waiver({ until: '2027-01-01' }), finding('asset/missing', ['a.html']), true],
])('%s', (_, given, found, expected) => {
  const { findings, waivers } = applyWaivers([found], [given], today)
  expect(findings.map(({ waived }) => waived)).toEqual([expected])
  expect(findings[0]?.waiver).toEqual(expected ? { reason: 'known', until: given.until ?? null } : null)
  const over = given.until === '2026-11-24'
  expect(waivers.map(({ state }) => state)).toEqual([expected ? 'used' : over ? 'expired' : 'unused'])
})

test('of two that cover a finding the first counts, and the other is unused', () => {
  const given = [waiver({ reason: 'first' }), waiver({ reason: 'second' })]
  const { findings, waivers } = applyWaivers([finding('asset/missing', ['a.html'])], given, today)
  expect(findings[0]?.waiver?.reason).toBe('first')
  expect(waivers.map(({ state }) => state)).toEqual(['used', 'unused'])
})

test('what a waiver says is in the report', () => {
  const { waivers } = applyWaivers([], [waiver({ where: 'old/**', until: '2026-12-31' })], today)
  expect(waivers).toEqual([
    { code: 'asset/missing', where: 'old/**', reason: 'known', until: '2026-12-31', state: 'unused' },
  ])
})
