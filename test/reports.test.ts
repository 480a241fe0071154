import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Ajv } from 'ajv'
import formatsPlugin from 'ajv-formats'
import { parse } from 'jsonc-parser'
import { describe, expect, test } from 'vitest'
import { validateXML } from 'xmllint-wasm'
import { checks } from '../src/core/checks/index.ts'
import { withWaiver } from '../src/core/configuration/add-waiver.ts'
import { presetNamed } from '../src/core/host/presets.ts'
import { MemoryFolder } from '../src/core/model/memory-folder.ts'
import type { Report } from '../src/core/model/report.ts'
import { parseSite } from '../src/core/model/site.ts'
import { check } from '../src/core/pipeline/check.ts'
import { holds } from '../src/core/pipeline/report.ts'
import type { Waiver } from '../src/core/release/waivers.ts'
import { junitOf } from '../src/core/report/formats/junit.ts'
import { linesOf } from '../src/core/report/formats/lines.ts'
import { markdownOf } from '../src/core/report/formats/markdown.ts'
import { sarifOf } from '../src/core/report/formats/sarif.ts'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

// The package's types do not follow its module form.
const addFormats = formatsPlugin as unknown as (ajv: Ajv) => Ajv

// A build whose names and texts would be markup, if anybody let them.
const hostile = '</script><img src=x onerror=alert(1)>"\'`|@skerry \u202e[x](y) & \u0007'
const files = (name = 'app-AbCdEf12.js'): Record<string, string> => ({
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/b/' }",
  'src/api.js': `fetch("http://localhost:8787/v1") // ${hostile}`,
  'dist/index.html': `<!doctype html><script type="module" src="/b/assets/${name}"></script><script src="/b/gone.js"></script>`,
  [`dist/assets/${name}`]: `fetch("http://localhost:8787/v1");var text=${JSON.stringify(hostile)};import("./lost-AbCdEf12.js")`,
})

async function reportOf(
  of = files(),
  waivers: readonly Waiver[] = [],
  today = '2026-11-25',
): Promise<Report> {
  return check(new MemoryFolder(of), {
    site: parseSite('https://skerryline.example/b/'),
    host: presetNamed('files'),
    waivers,
    today,
  })
}

describe('lines', () => {
  test('each is of the form that editors read, sources before the build, and nothing waived', async () => {
    const report = await reportOf()
    const all = linesOf(report).trimEnd().split('\n')
    expect(all.length).toBeGreaterThanOrEqual(report.findings.length)
    for (const line of all)
      expect(line).toMatch(/^[^:\n]+:\d+:\d+: (?:error|warning|note): \S.* \[[a-z]+\/[a-z-]+\]$/)
    expect(all.filter((line) => line.includes('[endpoint/loopback]'))).toEqual([
      expect.stringMatching(/^src\/api\.js:1:\d+: error: /),
    ])
    expect(all.find((line) => line.includes('gone.js'))).toMatch(/^dist\/index\.html:1:\d+: error: /)
    const waived = report.findings.map((finding) => ({ ...finding, waived: true }))
    expect(linesOf({ ...report, findings: waived })).toBe('')
  })

  test('no name of a file begins another part of a line', async () => {
    const named = linesOf(await reportOf(files('a:1:1: error: x\n-AbCdEf12.js')))
    for (const line of named.trimEnd().split('\n'))
      expect(line).toMatch(/^[^:]+:\d+:\d+: (?:error|warning|note): /)
  })
})

describe('SARIF', () => {
  test('each cause is a result, its place in the source first', async () => {
    const report = await reportOf()
    const [run] = sarifOf(report, checks, '1.2.3').runs
    expect(run?.results?.map(({ ruleId, level }) => `${ruleId} ${level}`)).toEqual(
      report.findings.map(({ code, severity }) => `${code} ${severity === 'blocker' ? 'error' : 'warning'}`),
    )
    const loopback = run?.results?.find(({ ruleId }) => ruleId === 'endpoint/loopback')
    expect(
      loopback?.locations?.map(({ physicalLocation }) => physicalLocation?.artifactLocation?.uri),
    ).toEqual(['src/api.js', 'dist/assets/app-AbCdEf12.js'])
    expect(loopback?.locations?.[0]?.physicalLocation?.region).toMatchObject({ startLine: 1, startColumn: 8 })
    for (const { ruleId, ruleIndex } of run?.results ?? [])
      expect(run?.tool.driver.rules?.[ruleIndex ?? -1]?.id).toBe(ruleId)
  })

  test('holds to the standard, with waivers and without findings too', async () => {
    const valid = addFormats(new Ajv()).compile(
      JSON.parse(readFileSync('test/formats/sarif.schema.json', 'utf8')),
    )
    const waived = await reportOf(files(), [{ code: 'endpoint/loopback', reason: 'known' }])
    const sound = await check(new MemoryFolder({ 'index.html': '<!doctype html>' }))
    for (const report of [await reportOf(), waived, sound]) {
      const written: unknown = JSON.parse(JSON.stringify(sarifOf(report, checks, '1.2.3')))
      expect(valid(written), JSON.stringify(valid.errors)).toBe(true)
    }
    expect(valid({ version: '2.1.0', runs: [{ tool: { driver: {} } }] })).toBe(false)
  })

  test('a rebuild with new hashes keeps the fingerprints', async () => {
    const prints = async (name: string) =>
      sarifOf(await reportOf(files(name)), checks, '1').runs[0]?.results?.map(
        ({ partialFingerprints }) => partialFingerprints,
      )
    expect(await prints('app-Zy9xWv87.js')).toEqual(await prints('app-AbCdEf12.js'))
  })

  test('a waiver is a suppression with its reason', async () => {
    const report = await reportOf(files(), [
      { code: 'endpoint/loopback', reason: 'only for the harbour kiosk' },
    ])
    const results = sarifOf(report, checks, '1').runs[0]?.results ?? []
    expect(
      results
        .filter(({ suppressions }) => suppressions)
        .map(({ ruleId, suppressions }) => [ruleId, suppressions?.[0]?.justification]),
    ).toEqual([['endpoint/loopback', 'only for the harbour kiosk']])
  })

  test('a fix that a program can make is one, and one that needs a value is not', async () => {
    const of = files()
    const page = of['dist/index.html']?.replaceAll('/b/', '/') ?? ''
    const fixesOf = async (code: string) => {
      const report = await reportOf({
        ...of,
        'vite.config.js': 'export default {}',
        'dist/index.html': page,
      })
      expect(report.findings.map((finding) => finding.code)).toContain(code)
      const results = sarifOf(report, checks, '1').runs[0]?.results ?? []
      return results.find(({ ruleId }) => ruleId === code)?.fixes
    }
    expect(await fixesOf('base/wrong-path')).toMatchObject([
      {
        artifactChanges: [
          {
            artifactLocation: { uri: 'vite.config.js' },
            replacements: [
              {
                deletedRegion: { charOffset: 16, charLength: 0 },
                insertedContent: { text: " base: '/b/' " },
              },
            ],
          },
        ],
      },
    ])
    expect(await fixesOf('endpoint/loopback')).toBeUndefined()
  })

  test('names with blanks and signs are URIs', async () => {
    const of = {
      'index.html': '<script src="a%20b%23.js"></script>',
      'a b#.js': 'fetch("http://localhost:1")',
    }
    const uris = sarifOf(await reportOf(of), checks, '1').runs[0]?.results?.flatMap(({ locations }) =>
      locations?.map(({ physicalLocation }) => physicalLocation?.artifactLocation?.uri),
    )
    expect(uris).toContain('memory/a%20b%23.js')
  })
})

describe('JUnit XML', () => {
  /** Names and attributes of every element; throws where the text is no well-formed XML. */
  function elements(xml: string): { name: string; attributes: Record<string, string>; depth: number }[] {
    const found: { name: string; attributes: Record<string, string>; depth: number }[] = []
    const open: string[] = []
    const token = /<\?xml[^>]*\?>|<(\/?)([\w-]+)((?:\s+[\w-]+="[^"<]*")*)\s*(\/?)>|[^<]+/gy
    for (let match = token.exec(xml); match; match = token.exec(xml)) {
      const [whole, closing, name, attributes = '', empty] = match
      if (name === undefined) {
        expect(whole.replace(/&(?:amp|lt|gt|quot);/g, '')).not.toContain('&')
        continue
      }
      if (closing) expect(open.pop()).toBe(name)
      else {
        const pairs = [...attributes.matchAll(/([\w-]+)="([^"]*)"/g)].map(([, key = '', value = '']) => [
          key,
          value,
        ])
        found.push({ name, attributes: Object.fromEntries(pairs), depth: open.length })
        if (!empty) open.push(name)
      }
      if (token.lastIndex === xml.length) break
    }
    expect(open).toEqual([])
    return found
  }

  test('holds to its schema, whatever a build is called', async () => {
    const schema = [readFileSync('test/formats/junit.xsd', 'utf8')]
    const errorsOf = async (contents: string) =>
      (await validateXML({ xml: [{ fileName: 'report.xml', contents }], schema })).errors
    for (const holdOn of ['blocker', 'caution'] as const) {
      const xml = junitOf(await reportOf(), checks, (finding) => holds(finding, holdOn))
      expect(await errorsOf(xml)).toEqual([])
      expect(await errorsOf(xml.replace(' classname=', ' klass='))).not.toEqual([])
    }
  })

  test('an area is a suite, a code a case, and the counts are right', async () => {
    const report = await reportOf()
    const all = elements(junitOf(report, checks, (finding) => holds(finding)))
    const cases = all.filter(({ name }) => name === 'testcase')
    expect(cases).toHaveLength(checks.length)
    const failures = all.filter(({ name }) => name === 'failure')
    expect(failures).toHaveLength(
      new Set(report.findings.filter(({ severity }) => severity === 'blocker').map(({ code }) => code)).size,
    )
    expect(all[0]).toMatchObject({
      name: 'testsuites',
      attributes: { tests: String(checks.length), failures: String(failures.length) },
    })
    const suites = all.filter(({ name }) => name === 'testsuite')
    expect(suites.reduce((sum, { attributes }) => sum + Number(attributes.tests), 0)).toBe(checks.length)
  })

  test('what no XML may hold is replaced', async () => {
    const xml = junitOf(await reportOf(), checks, () => true)
    expect(xml).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/)
    expect(xml).not.toContain('<img')
  })
})

describe('Markdown', () => {
  test('says verdict, causes and fixes', async () => {
    const text = markdownOf(await reportOf())
    expect(text).toMatch(/^## \*\*Held\*\*: `https:\/\/skerryline\.example\/b\/`/)
    for (const part of ['| blocker |', '### ', '`src/api.js:1`', '`endpoint/loopback`', '1. In '])
      expect(text).toContain(part)
  })

  test('nothing of a build is markup in it', async () => {
    const text = markdownOf(await reportOf())
    const outside = text.replace(/(`+)[^`](?:[\s\S]*?[^`])?\1(?!`)/g, '')
    expect(outside).not.toMatch(/<img|<\/script|\]\(y\)|@skerry/)
    expect(text).not.toMatch(/[\u202e\u0007]/)
  })

  test('fits a comment, however many causes there are', async () => {
    const report = await reportOf()
    const [finding] = report.findings
    if (!finding) throw new Error('no finding')
    const many = Array.from({ length: 400 }, (_, index) => ({
      ...finding,
      title: `${finding.title} ${index}`,
      cause: 'because '.repeat(60),
    }))
    const text = markdownOf({ ...report, findings: many })
    expect(text.length).toBeLessThan(60_000)
    expect(text).toMatch(/\d+ more causes left out here/)
  })

  test('a sound build is short', async () => {
    const of = { 'index.html': '<!doctype html><title>x</title>' }
    expect(markdownOf(await reportOf(of)).split('\n')).toHaveLength(4)
  })
})

describe('waivers', () => {
  const code = 'endpoint/loopback'
  test.each<[string, Waiver, boolean, string]>([
    ['of its code', { code, reason: 'x' }, true, 'used'],
    ['of another code', { code: 'asset/missing', reason: 'x' }, false, 'used'],
    ['of its place in the build', { code, reason: 'x', where: 'assets/*.js' }, true, 'used'],
    ['of its place in the source', { code, reason: 'x', where: 'src/**' }, true, 'used'],
    ['of another place', { code, reason: 'x', where: 'legacy/**' }, false, 'unused'],
    ['that holds until today', { code, reason: 'x', until: '2026-11-25' }, true, 'used'],
    ['that ended yesterday', { code, reason: 'x', until: '2026-11-24' }, false, 'expired'],
  ])('one %s', async (_, waiver, covered, state) => {
    const { findings, waivers } = await reportOf(files(), [waiver])
    expect(findings.find((each) => each.code === code)?.waived).toBe(covered)
    expect(waivers).toMatchObject([{ code: waiver.code, state }])
  })

  test('when every blocker is waived, the build is clear', async () => {
    const { verdict, findings } = await reportOf()
    expect(verdict).toBe('held')
    const codes = [...new Set(findings.map((each) => each.code))]
    expect(
      (
        await reportOf(
          files(),
          codes.map((each) => ({ code: each, reason: 'x' })),
        )
      ).verdict,
    ).toBe('clear')
  })

  test.each<[string, string, string]>([
    ['an empty object', '{}', '"waivers"'],
    [
      'a file with comments and an order of its own',
      '{\n  // where it goes\n  "host": "fallback",\n  "site": "https://skerryline.example/"\n}\n',
      '// where it goes\n  "host": "fallback",\n  "site"',
    ],
    ['a list that has one', '{ "waivers": [ { "code": "a/b", "reason": "c" } /* first */ ] }', '/* first */'],
  ])('is written into %s', (_, before, kept) => {
    const after = withWaiver('x.json', before, { code, reason: 'kiosk', until: '2027-01-31' })
    expect(after).toContain(kept)
    const read = parse(after)
    expect(read.waivers.at(-1)).toEqual({ code, reason: 'kiosk', until: '2027-01-31' })
  })

  test.each(['[]', '{', '"x"'])('is not written into %s', (before) => {
    expect(() => withWaiver('x.json', before, { code, reason: 'x' })).toThrow('x.json is not JSON')
  })
})

describe('on the command line', () => {
  const site = ['--site', 'https://skerryline.example/b/', '--host', 'files', '--no-cache']

  test('several forms, each to its own file, and the text to the terminal', () => {
    const root = folderWith(files())
    const out = mkdtempSync(join(tmpdir(), 'wardoscope-out-'))
    const forms = ['sarif', 'junit', 'markdown', 'json'].flatMap((name) => [
      '--format',
      name,
      '--out',
      join(out, name),
    ])
    const ran = wardoscope(['check', ...site, ...forms, '--format', 'text'], root)
    expect([ran.status, ran.out.slice(0, 4)]).toEqual([1, 'HELD'])
    expect(JSON.parse(readFileSync(join(out, 'sarif'), 'utf8')).version).toBe('2.1.0')
    expect(readFileSync(join(out, 'junit'), 'utf8')).toContain('<testsuites')
    expect(readFileSync(join(out, 'markdown'), 'utf8')).toContain('## **Held**')
    expect(JSON.parse(readFileSync(join(out, 'json'), 'utf8')).schema).toBe('wardoscope-report/1')
  })

  test('two forms can not share standard output', () => {
    const { status, err } = wardoscope(
      ['check', '--format', 'json', '--format', 'sarif'],
      folderWith(files()),
    )
    expect([status, err]).toEqual([2, expect.stringContaining('json and sarif')])
  })

  test('a finding is waived, and stands again when the day is over', () => {
    const root = folderWith({
      ...files(),
      'dist/index.html': '<!doctype html><script type="module" src="/b/assets/app-AbCdEf12.js"></script>',
      'dist/assets/app-AbCdEf12.js': 'fetch("http://localhost:8787/v1")',
    })
    expect(wardoscope(['check', ...site], root).status).toBe(1)
    const said = wardoscope(
      ['waive', 'endpoint/loopback', '--reason', 'for the kiosk', '--until', '2999-12-31'],
      root,
    )
    expect([said.status, said.out]).toEqual([0, expect.stringContaining('until 2999-12-31')])
    const after = wardoscope(['check', ...site], root)
    expect(after.status).toBe(0)
    expect(after.out).toContain('for the kiosk')
    writeFileSync(
      join(root, 'wardoscope.config.json'),
      '{ "waivers": [{ "code": "endpoint/loopback", "reason": "x", "until": "2020-01-01" }] }',
    )
    const over = wardoscope(['check', ...site], root)
    expect(over.status).toBe(1)
    expect(over.out).toContain('ended on 2020-01-01')
  })

  test.each<[string, string[], string]>([
    ['a code that is none', ['waive', 'endpoint/lopback', '--reason', 'x'], 'endpoint/loopback'],
    ['no reason', ['waive', 'endpoint/loopback'], '--reason'],
    ['an empty reason', ['waive', 'endpoint/loopback', '--reason', ' '], 'needs a reason'],
    ['a day that is none', ['waive', 'endpoint/loopback', '--reason', 'x', '--until', 'soon'], 'until'],
  ])('%s is one sentence', (_, words, says) => {
    const root = folderWith(files())
    const { status, err } = wardoscope(words, root)
    expect(status).toBe(2)
    expect(err).toContain(says)
    expect(err.trim().split('\n')).toHaveLength(1)
  })

  test.each<[string, string]>([
    ['{ "waivers": [{ "code": "endpoint/loopback" }] }', 'reason'],
    ['{ "waivers": [{ "code": "endpoint/lopback", "reason": "x" }] }', 'Did you mean endpoint/loopback?'],
  ])('a configuration with %s', (text, says) => {
    const { status, err } = wardoscope(
      ['check', ...site],
      folderWith({ ...files(), 'wardoscope.config.json': text }),
    )
    expect([status, err]).toEqual([2, expect.stringContaining(says)])
  })

  test('a caution holds the build when it is reported to', () => {
    const root = folderWith({
      ...files(),
      'src/api.js': '',
      'dist/index.html': '<!doctype html><script type="module" src="/b/assets/app-AbCdEf12.js"></script>',
      'dist/assets/app-AbCdEf12.js': '',
      'dist/assets/app-Zy9xWv87.js': '',
    })
    const held = ['check', ...site, '--hold-on', 'caution']
    expect(wardoscope(['check', ...site], root).out).toContain('caution')
    expect([wardoscope(['check', ...site], root).status, wardoscope(held, root).status]).toEqual([0, 1])
    const wrong = wardoscope(['check', ...site, '--hold-on', 'notes'], root)
    expect([wrong.status, wrong.err]).toEqual([
      2,
      'wardoscope: There is no word for --hold-on "notes". There are: blocker, caution, unused-waivers.\n',
    ])
  })

  test('the rules that servers need are told where they are, and explain has them for a site', () => {
    const folder = folderWith({ 'index.html': '<!doctype html><title>x</title>' })
    const route = ['--host', 'files', '--route', '/b/x', '--no-cache']
    const { out } = wardoscope([folder, ...route, '--site', 'https://skerryline.example/b/'])
    expect(out).toContain(
      'What nginx and Apache httpd need: wardoscope explain route/no-answer --site\n    https://skerryline.example/b/',
    )
    expect(out).not.toContain('RewriteRule')
    expect(wardoscope([folder, ...route]).out).toContain('explain route/no-answer --site <url>')
    const rules = wardoscope(['explain', 'route/no-answer', '--site', 'https://skerryline.example/b/']).out
    expect(rules).toMatch(/location \/b\/ \{[\s\S]*RewriteRule "\^" "\/b\/index\.html"/)
    expect(
      wardoscope(['explain', 'base/wrong-path', '--site', 'https://skerryline.example/b/']).out,
    ).not.toContain('RewriteRule')
    const wrong = wardoscope(['explain', 'route/no-answer', '--site', 'nowhere'])
    expect([wrong.status, wrong.err.trimEnd().split('\n').length]).toEqual([2, 1])
  })

  test('explain puts the fix of the framework at hand first', () => {
    const { out } = wardoscope(['explain', 'endpoint/loopback', '--no-color'], folderWith(files()))
    expect(out.indexOf('fix, with vite, as here')).toBeGreaterThan(0)
    expect(out.indexOf('fix, with vite, as here')).toBeLessThan(out.indexOf('\nfix\n'))
  })
})

describe('accepting all that stands', () => {
  const site = ['--site', 'https://skerryline.example/b/', '--host', 'files', '--no-cache']
  const accept = (folder: string, ...more: string[]) =>
    wardoscope(['waive', '--all', folder, ...site, '--reason', 'as we found it', ...more])

  test('it is clear as it stands, and what is new holds', () => {
    const folder = folderWith(files())
    expect(wardoscope([folder, ...site]).status).toBe(1)
    const { status, out } = accept(folder, '--until', '2999-01-31')
    expect(status).toBe(0)
    expect(out).toMatch(
      /^\d+ findings accepted until 2999-01-31; what is new holds\. Written to .*wardoscope\.accepted\.json\.$/m,
    )
    expect(wardoscope([folder, ...site])).toMatchObject({ status: 0, out: expect.stringMatching(/^CLEAR/) })
    const text = readFileSync(join(folder, 'wardoscope.accepted.json'), 'utf8')
    accept(folder, '--until', '2999-01-31')
    expect(readFileSync(join(folder, 'wardoscope.accepted.json'), 'utf8')).toBe(text)
    writeFileSync(
      join(folder, 'dist/index.html'),
      `${files()['dist/index.html']}<script src="/b/another.js"></script>`,
    )
    const again = wardoscope([folder, ...site])
    expect(again.status).toBe(1)
    expect(again.out).toContain('another.js')
  })

  test('what covers nothing any more holds where that is wished, in words or in the configuration', () => {
    const folder = folderWith(files())
    accept(folder, '--until', '2999-01-31')
    const sound = {
      'dist/index.html':
        '<!doctype html><title>x</title><script type="module" src="/b/assets/app-AbCdEf12.js"></script>',
      'dist/assets/app-AbCdEf12.js': '',
      'src/api.js': '',
    }
    for (const [path, text] of Object.entries(sound)) writeFileSync(join(folder, path), text)
    expect(wardoscope([folder, ...site]).status).toBe(0)
    const held = wardoscope([folder, ...site, '--hold-on', 'unused-waivers'])
    expect(held.status).toBe(1)
    expect(held.out).toContain('its waiver covers nothing; take it out')
    expect(wardoscope([folder, ...site, '--hold-on', 'unused-waivers', '--quiet']).out).toMatch(
      /^\d+ waivers? covers? nothing: /,
    )
    writeFileSync(join(folder, 'wardoscope.config.json'), '{"holdOn":["caution","unused-waivers"]}')
    expect(wardoscope([folder, ...site]).status).toBe(1)
    expect(wardoscope([folder, ...site, '--hold-on', 'blocker']).status).toBe(0)
  })

  test('a waiver of no known code is blamed on the file that has it', () => {
    const folder = folderWith(files())
    accept(folder, '--until', '2999-01-31')
    const accepted = join(folder, 'wardoscope.accepted.json')
    const text = readFileSync(accepted, 'utf8')
    writeFileSync(accepted, text.replace('endpoint/loopback', 'endpoint/loopbak'))
    expect(wardoscope([folder, ...site]).err).toMatch(
      /^wardoscope: A waiver in \S+wardoscope\.accepted\.json can't be used\. .*endpoint\/loopback/,
    )
    writeFileSync(accepted, text)
    const waiver = '{"waivers":[{"code":"endpoint/loopbak","reason":"x"}]}'
    writeFileSync(join(folder, 'wardoscope.config.json'), waiver)
    expect(wardoscope([folder, ...site]).err).toMatch(
      /^wardoscope: A waiver in wardoscope\.config\.json can't be used\./,
    )
  })

  test('what is wrong is one sentence', () => {
    const folder = folderWith({
      ...files(),
      'wardoscope.accepted.json': '{"reason":"x","findings":[{"cod":"y"}]}',
    })
    const said = (...words: string[]) => {
      const { status, err } = wardoscope(words)
      expect(status).toBe(2)
      expect(err.trimEnd()).not.toContain('\n')
      return err
    }
    expect(said(folder, ...site)).toMatch(
      /wardoscope\.accepted\.json has a key "cod" that is not known|has a wrong/,
    )
    const plain = folderWith(files())
    expect(said('waive', '--all', plain, ...site, '--reason', ' ')).toContain('needs a reason')
    expect(said('waive', '--all', plain, ...site, '--reason', 'x', '--until', '2020-01-01')).toContain(
      '2020-01-01 is over',
    )
    expect(said('waive', '--all', plain, ...site, '--reason', 'x', '--until', 'soon')).toContain(
      '"soon" is no day',
    )
    expect(said('waive', '--reason', 'x')).toContain('Name the finding code')
    expect(said('waive', '--all', 'a/b', plain, '--reason', 'x')).toContain('no code is named')
  })

  test('the same waiver is not written twice, and none for a day that is over', () => {
    const folder = folderWith(files())
    const waive = (...more: string[]) =>
      wardoscope(['waive', 'endpoint/loopback', folder, '--reason', 'known', ...more])
    expect(waive().out).toContain('Written to')
    const text = readFileSync(join(folder, 'wardoscope.config.json'), 'utf8')
    expect(waive().out).toContain('accepted already. Nothing was written')
    expect(readFileSync(join(folder, 'wardoscope.config.json'), 'utf8')).toBe(text)
    expect(waive('--until', '2020-01-01')).toMatchObject({
      status: 2,
      err: expect.stringContaining('is over'),
    })
  })
})
