import { mkdtempSync, readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'
import { folderWith } from './support/folders.ts'

// Marked values of every kind, planted wherever a project and its build may hold them.
const marks = {
  VITE_API: 'https://mark-one.skerryline.example/v1',
  VITE_KEY: 'mark-two-Zr41-9x',
  DATABASE_KEY: 'mark-three-77-secret',
  VITE_EARLY: 'mark-four-development-only',
  VITE_BLANK: 'your-mark-five-here',
  PIPELINE_TOKEN: 'mark-six-of-the-process-88',
  VITE_OF_THE_PROCESS: 'mark-seven-of-the-process',
  VITE_OF_THE_PIPELINE: 'mark-eight-of-the-pipeline',
  MAIL_PASSWORD: 'mark ten: "tide & wind" <daily>',
  VITE_MESSAGE: "mark eleven's tide / wind",
  /** No variable at all, only the shape of a secret. */
  SHAPE: 'mArk9-Qx7Zr41K9mPa83LcT0vWb5Yd',
} as const
const all = Object.values(marks)

function project(): string {
  const bundle = [
    `fetch("${marks.VITE_API}/list")`,
    `client({key:"${marks.VITE_KEY}",size:2})`,
    `connect("${marks.DATABASE_KEY}")`,
    `early("${marks.VITE_EARLY}")`,
    `blank("${marks.VITE_BLANK}")`,
    `pipeline("${marks.PIPELINE_TOKEN}")`,
    `seven("${marks.VITE_OF_THE_PROCESS}")`,
    `eight({clientSecret:"${marks.SHAPE}"})`,
    `mail(${JSON.stringify(marks.MAIL_PASSWORD)})`,
    `basic("${Buffer.from(`user:${marks.DATABASE_KEY}`).toString('base64')}")`,
    `fetch("/crossings/missing.json?message=${encodeURIComponent(marks.VITE_MESSAGE)}")`,
    `fetch("http://localhost:9/${encodeURIComponent(marks.MAIL_PASSWORD)}")`,
    'import("./gone-AbCdEf12.js")',
    `route([],{basename:"/${marks.VITE_KEY}"})`,
    `fetch("/crossings/${marks.VITE_KEY}/list")`,
  ].join(';')
  const filler = 'var filler="/crossings/nothing/here";'.repeat(120_000)
  return folderWith({
    'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
    'vite.config.js': `export default { base: '/crossings/', define: { K: '${marks.DATABASE_KEY}' } }`,
    '.env': `DATABASE_KEY=${marks.DATABASE_KEY}\nVITE_EARLY=real-value-of-it-9\nMAIL_PASSWORD='${marks.MAIL_PASSWORD}'`,
    '.env.production': `VITE_API=${marks.VITE_API}\nVITE_KEY="${marks.VITE_KEY}"\nVITE_BLANK=${marks.VITE_BLANK}\nVITE_MESSAGE="${marks.VITE_MESSAGE}"`,
    '.pipelines/site.yml': `env:\n  VITE_OF_THE_PIPELINE: ${marks.VITE_OF_THE_PIPELINE}`,
    '.env.development': `VITE_EARLY=${marks.VITE_EARLY}`,
    'src/api.js': `export const load = () => fetch(import.meta.env.VITE_API + '/list')\nexport const key = "${marks.DATABASE_KEY}"`,
    'dist/index.html': `<!doctype html><script type="module" src="/crossings/assets/a-AbCdEf12.js"></script><meta name="key" content="${marks.VITE_KEY}"><meta name="assets" content="/${marks.VITE_KEY}/"><link rel="canonical" href="${marks.VITE_API}/page"><script type="importmap">{"imports":{"x":"/${marks.VITE_KEY}/x.js"}}</script><script>window.assets = "/${marks.VITE_KEY}/"</script><img src="/crossings/${marks.VITE_KEY}.png"><p title="${htmlOf(marks.MAIL_PASSWORD)}">${htmlOf(marks.VITE_MESSAGE)}</p><a href="/crossings/${marks.VITE_KEY}/">x</a><img src="gone-${htmlOf(encodeURIComponent(marks.MAIL_PASSWORD))}.png">`,
    [`dist/${marks.VITE_KEY}/index.html`]: `<!doctype html><img src="missing.png"><a href="/crossings/${Buffer.from(marks.MAIL_PASSWORD).toString('base64url')}">x</a>`,
    'dist/assets/a-AbCdEf12.js': `${bundle};${filler}`,
    'dist/config.json': `{"key":"${marks.VITE_KEY}"}`,
    'dist/.env.production': `VITE_KEY=${marks.VITE_KEY}`,
  })
}

function htmlOf(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
}

/** A value as it may slip through: as it is, in base64, percent-encoded, escaped for JSON, a page or a script. */
function formsOf(value: string): string[] {
  const base64 = [0, 1, 2].map((shift) =>
    Buffer.from(`${' '.repeat(shift)}${value}`)
      .toString('base64')
      .slice(4, -4),
  )
  return [
    value,
    encodeURIComponent(value),
    encodeURI(value),
    value.replaceAll('/', '\\/'),
    JSON.stringify(value).slice(1, -1),
    htmlOf(value),
    htmlOf(value).replaceAll("'", '&#39;'),
    JSON.stringify(value)
      .slice(1, -1)
      .replaceAll('<', '\\u003c')
      .replaceAll('&', '\\u0026')
      .replaceAll('>', '\\u003e'),
    ...base64,
    ...base64.map((text) => text.replaceAll('+', '-').replaceAll('/', '_')),
  ]
}

test('no value of any variable is in any output, in the cache, or in an error', () => {
  const folder = project()
  const cache = mkdtempSync(join(tmpdir(), 'wardoscope-search-'))
  const site = ['--site', 'https://skerryline.example/crossings/']
  const outputs = [
    ['check', ...site, '--host', 'files', '--routes', '--variables'],
    ['check', ...site, '--host', 'fallback', '--format', 'json'],
    ['check', ...site, '--format', 'json', '--no-cache'],
    ...['sarif', 'junit', 'markdown', 'html'].map((format) => ['check', ...site, '--format', format]),
    ['check', ...site, '--hold-on', 'caution'],
    ['check', ...site, '--weight', '--site', 'https://skerryline.test/'],
    ['compare', '.', '.', ...site],
    ['compare', '.', '.', ...site, '--format', 'json'],
    ['rehearse', ...site, '--host', 'fallback', '--format', 'json'],
    ['check', ...site, '--record', join(cache, 'wardoscope-record.json')],
    ['check', 'dist', ...site, '--format', 'json', '--routes'],
    ['survey'],
    ['survey', '--format', 'json'],
    ['check', '--project', marks.VITE_KEY.slice(0, 4)],
  ].map((args) => {
    const { PIPELINE_TOKEN, VITE_OF_THE_PROCESS } = marks
    const own = { XDG_CACHE_HOME: cache, PIPELINE_TOKEN, VITE_OF_THE_PROCESS }
    Object.assign(process.env, own)
    const { out, err } = wardoscope(args, folder)
    for (const name of Object.keys(own)) delete process.env[name]
    return out + err
  })
  const [first = ''] = outputs
  for (const name of ['PIPELINE_TOKEN', 'VITE_OF_THE_PROCESS', 'VITE_OF_THE_PIPELINE']) {
    expect(first).toContain(name)
  }
  for (const code of [
    'env/private-value',
    'env/development-value',
    'env/placeholder',
    'env/file-published',
    'env/credential-shape',
    'asset/missing',
  ]) {
    expect(first).toContain(code)
  }
  // What was planted in names, links and encoded forms is there, by its name.
  for (const shown of ['${VITE_KEY}/', '${MAIL_PASSWORD}', 'DATABASE_KEY, MAIL_PASSWORD'])
    expect(
      outputs.some((text) => text.includes(shown)),
      shown,
    ).toBe(true)
  const kept = readdirSync(join(cache, 'wardoscope'))
  expect(kept.some((name) => name.startsWith('facts-'))).toBe(true)
  const record = readFileSync(join(cache, 'wardoscope-record.json'), 'utf8')
  const texts = [
    record,
    ...outputs,
    ...kept.map((name) => readFileSync(join(cache, 'wardoscope', name), 'latin1')),
  ]
  for (const value of all) {
    for (const form of formsOf(value)) {
      for (const [index, text] of texts.entries()) {
        expect(text.includes(form), `${form} in text ${index}`).toBe(false)
      }
    }
  }
})
