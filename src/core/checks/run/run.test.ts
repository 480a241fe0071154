import { describe, expect, test } from 'vitest'
import { checkAlone, codesOf, page } from '../../../../test/support/cases.ts'
import { presetNamed } from '../../host/presets.ts'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { parseSite } from '../../model/site.ts'
import type { Visit } from '../../rehearse/rehearsal.ts'

const script = '<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'
const sound = { 'index.html': page(script), 'assets/app-AbCdEf12.js': 'start()\nlist.map(String)' }
const origin = 'https://skerryline.example'

const quiet: Visit = {
  route: '/b/',
  width: 1280,
  status: 200,
  requests: 2,
  errors: [],
  complaints: [],
  failed: [],
  left: [],
  blank: false,
  overflows: false,
  again: 200,
  worker: null,
  milliseconds: 5,
  picture: null,
}

/** What is found when visits saw this. */
async function found(
  visits: readonly Partial<Visit>[],
  files: Readonly<Record<string, string>> = sound,
): Promise<{ codes: string[]; text: string }> {
  const { findings } = await checkAlone(
    ['run/', 'asset/missing', 'asset/broken-script', 'env/absent', 'env/placeholder'],
    new MemoryFolder(files),
    {
      site: parseSite(`${origin}/b/`),
      host: presetNamed('files'),
      rehearse: async () => ({
        by: 'browser',
        visits: visits.map((visit) => ({ ...quiet, ...visit })),
        linked: [],
        differences: [],
      }),
    },
  )
  return { codes: codesOf(findings), text: JSON.stringify(findings) }
}

const thrown = { text: 'TypeError: list is undefined', file: 'assets/app-AbCdEf12.js', line: 2, column: 1 }
const missing = { url: `${origin}/b/data/2026.json`, status: 404, reason: 'status 404', data: true }
const unsent = { url: 'https://api.skerryline.example/v1', method: 'GET', outcome: 'not sent' as const }

describe('run/page-error', () => {
  test('a script that is none is told once', async () => {
    const errors = [{ ...thrown, text: 'SyntaxError: Unexpected end of input' }]
    const { codes } = await found([{ errors, blank: true }], { ...sound, 'assets/app-AbCdEf12.js': 'start(' })
    expect(codes).toEqual(['asset/broken-script blocker ×1'])
  })
  test('one error on two routes and three widths is one finding, at its place', async () => {
    const visits = [390, 820, 1280].flatMap((width) =>
      ['/b/', '/b/x'].map((route) => ({ route, width, errors: [thrown] })),
    )
    const { codes, text } = await found(visits)
    expect(codes).toEqual(['run/page-error blocker ×1'])
    expect(text).toContain('"line":2')
    expect(text).toContain('/b/ and 1 more')
  })

  test.each<[string, Partial<Visit>, string[]]>([
    [
      'that is what comes of a request that was not sent',
      { errors: [{ ...thrown, text: 'Failed to fetch' }], left: [unsent] },
      [],
    ],
    [
      'that may come of a request that was not sent',
      { errors: [thrown], left: [unsent] },
      ['run/page-error caution ×1'],
    ],
    [
      'on a page whose services answered',
      { errors: [thrown], left: [{ ...unsent, outcome: 'answered by the stand-in' }] },
      ['run/page-error blocker ×1'],
    ],
    ['of a script of no file', { errors: [{ ...thrown, file: null }] }, ['run/page-error blocker ×1']],
  ])('an error %s', async (_, visit, expected) => {
    expect((await found([visit])).codes).toEqual(expected)
  })

  test('an error that a missing file explains is not reported again', async () => {
    const files = { 'index.html': page(script) }
    const url = `${origin}/b/assets/app-AbCdEf12.js`
    const { codes } = await found(
      [{ errors: [thrown], blank: true, failed: [{ url, status: 404, reason: 'status 404', data: false }] }],
      files,
    )
    expect(codes).toEqual(['asset/missing blocker ×1'])
  })
})

test('an error is doubtful only where requests stayed unsent on every route that shows it', async () => {
  const one = { errors: [thrown], left: [unsent] }
  expect((await found([one])).codes).toEqual(['run/page-error caution ×1'])
  expect((await found([one, { route: '/b/x', errors: [thrown] }])).codes).toEqual([
    'run/page-error blocker ×1',
  ])
})

describe('run/blank-page', () => {
  test.each<[string, Partial<Visit>, string[]]>([
    ['nothing is shown', { blank: true }, ['run/blank-page blocker ×1']],
    ['a script threw, which says more', { blank: true, errors: [thrown] }, ['run/page-error blocker ×1']],
    ['something is shown', {}, []],
  ])('%s', async (_, visit, expected) => {
    expect((await found([visit])).codes).toEqual(expected)
  })
})

describe('run/console-error', () => {
  const complaint = { kind: 'error' as const, text: 'Timetable is empty', file: null, line: 1, column: 1 }
  test.each<[string, Partial<Visit>, string[]]>([
    ['an error', { complaints: [complaint] }, ['run/console-error caution ×1']],
    ['a warning', { complaints: [{ ...complaint, kind: 'warning' }] }, []],
    [
      "the browser's words on a request",
      { complaints: [{ ...complaint, text: 'Access to fetch at x has been blocked by CORS policy' }] },
      [],
    ],
    [
      'words that only hold those of the browser',
      { complaints: [{ ...complaint, text: 'No Access to the timetable' }] },
      ['run/console-error caution ×1'],
    ],
    [
      'what code says of a request that failed',
      { complaints: [complaint], failed: [missing] },
      ['run/request-failed blocker ×1'],
    ],
    [
      'what code says of an error',
      { complaints: [complaint], errors: [thrown] },
      ['run/page-error blocker ×1'],
    ],
    ['what code says of a request that was not sent', { complaints: [complaint], left: [unsent] }, []],
  ])('%s', async (_, visit, expected) => {
    expect((await found([visit])).codes).toEqual(expected)
  })
})

describe('run/request-failed', () => {
  test.each<[string, Partial<Visit>, string[]]>([
    ['a request of the own site', { failed: [missing] }, ['run/request-failed blocker ×1']],
    [
      'the picture that browsers request unasked',
      { failed: [{ ...missing, url: `${origin}/favicon.ico` }] },
      [],
    ],
    ['the page itself', { route: '/x/', failed: [{ ...missing, url: `${origin}/x/`, data: false }] }, []],
    ['a request elsewhere', { failed: [{ ...missing, url: 'https://api.skerryline.example/v1' }] }, []],
  ])('%s', async (_, visit, expected) => {
    expect((await found([visit])).codes).toEqual(expected)
  })

  test('one that is known to fail is reported as what it is, and as seen both ways', async () => {
    const files = { ...sound, 'assets/app-AbCdEf12.js': 'import("./gone-AbCdEf12.js")' }
    const url = `${origin}/b/assets/gone-AbCdEf12.js`
    const { codes, text } = await found(
      [{ failed: [{ url, status: 404, reason: 'status 404', data: false }] }],
      files,
    )
    expect(codes).toEqual(['asset/missing blocker ×1'])
    expect(text).toContain('["check","rehearsal"]')
  })
})
