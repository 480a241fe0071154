// Writes what is made from the code: the report's JSON Schema and the page of each finding code.
// With --check, changes nothing and fails when a file is not what it would write. Reads the compiled program.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { z } from 'zod'

const root = new URL('../', import.meta.url)
const at = (path) => fileURLToPath(new URL(path, root))

const files = new Map([
  ['schemas/wardoscope-report-1.schema.json', await reportSchema()],
  ['schemas/wardoscope-host-1.schema.json', await hostSchema()],
  ['schemas/wardoscope-config-1.schema.json', await configurationSchema()],
  ['schemas/wardoscope-record-1.schema.json', await recordSchema()],
  ['docs/hosts.md', await hostPage()],
  ['docs/surface.md', surfacePage()],
  ['src/core/output/scanner-code.ts', await scannerCode()],
  ...(await findingPages()),
])

const check = process.argv.includes('--check')
let stale = 0
for (const [path, text] of files) {
  if (readOrNull(path) === text) continue
  stale++
  if (check) process.stderr.write(`${path} is not current. Run: npm run generate\n`)
  else {
    mkdirSync(dirname(at(path)), { recursive: true })
    writeFileSync(at(path), text)
    process.stderr.write(`written ${path}\n`)
  }
}
process.exitCode = check && stale > 0 ? 1 : 0

function readOrNull(path) {
  try {
    return readFileSync(at(path), 'utf8')
  } catch {
    return null
  }
}

/** The scanner as the engine takes it: its sources are compiled here, so that nobody needs a compiler to read a file. */
async function scannerCode() {
  const { default: compiler } = await import('assemblyscript/asc')
  const written = []
  const { error, stderr } = await compiler.main(
    ['scanner/index.ts', '-O3', '--runtime', 'stub', '--noAssert', '--outFile', 'scanner.wasm'],
    { writeFile: (_, contents) => void written.push(contents), readFile: (name) => readOrNull(name) },
  )
  if (error || written.length !== 1)
    throw new Error(`the scanner was not compiled: ${error?.message}\n${stderr}`)
  const text = Buffer.from(written[0]).toString('base64')
  return [
    '// Made from the folder `scanner` by npm run generate: a WebAssembly module in base64.',
    '// biome-ignore format: one line',
    `export const scannerCode = '${text}'`,
    '',
  ].join('\n')
}

/** What each preset answers to typical requests, from the model itself. */
async function hostPage() {
  const { presets } = await import(new URL('dist/core/host/presets.js', root))
  const { answer } = await import(new URL('dist/core/host/answer.js', root))
  const { FolderIndex } = await import(new URL('dist/core/requests/folder-index.js', root))
  const { parseSite } = await import(new URL('dist/core/model/site.js', root))
  const files = ['index.html', '404.html', 'about/index.html', 'plain.html', 'assets/app.js']
  const requests = [
    '',
    'about/',
    'about',
    'plain.html',
    'plain',
    'assets/app.js',
    'assets/gone.js',
    'sailings/42',
  ]
  const site = parseSite('https://skerryline.example/crossings/')
  const index = new FolderIndex(files.map((path) => ({ path })))
  const cell = (host, path) => {
    const { status, file, location } = answer(host, site, index, path)
    return `${status}${file ? ` \`${file}\`` : location ? ` → \`${location}\`` : ''}`
  }
  const rows = [...requests.map((path) => site.base + path), '/crossings', '/elsewhere'].map(
    (path) => `| \`${path}\` | ${presets.map((host) => cell(host, path)).join(' | ')} |`,
  )
  const before = readOrNull('docs/hosts.md') ?? ''
  const [start, end] = ['<!-- presets -->', '<!-- /presets -->']
  const table = [
    `| request | ${presets.map(({ name }) => `\`${name}\``).join(' | ')} |`,
    `| --- | ${presets.map(() => '---').join(' | ')} |`,
    ...rows,
  ].join('\n')
  const head = before.slice(0, before.indexOf(start) + start.length)
  return `${head}\n${table}\n${before.slice(before.indexOf(end))}`
}

async function hostSchema() {
  const { hostFileSchema } = await import(new URL('dist/core/host/host-file.js', root))
  const json = z.toJSONSchema(hostFileSchema, { target: 'draft-2020-12', io: 'input' })
  return `${JSON.stringify({ title: 'A host as Wardoscope reads it, version 1', ...json }, null, 2)}\n`
}

async function configurationSchema() {
  const { configurationSchema: schema } = await import(
    new URL('dist/core/configuration/configuration.js', root)
  )
  const json = z.toJSONSchema(schema, { target: 'draft-2020-12', io: 'input' })
  return `${JSON.stringify({ title: 'How a project is checked by Wardoscope, version 1', ...json }, null, 2)}\n`
}

async function reportSchema() {
  const { reportSchema: schema } = await import(new URL('dist/core/model/report.js', root))
  const json = z.toJSONSchema(schema, { target: 'draft-2020-12' })
  return `${JSON.stringify({ title: "Wardoscope's JSON report, version 1", ...json }, null, 2)}\n`
}

/** Every name that an entry of the package exports. A change of this file is a change for whoever uses the library. */
function surfacePage() {
  const { exports: entries } = JSON.parse(readFileSync(at('package.json'), 'utf8'))
  const lines = [
    '# What the library exports',
    '',
    'Made by `npm run generate`; a test fails when it is not current.',
  ]
  for (const [entry, target] of Object.entries(entries)) {
    if (typeof target === 'string') continue
    const source = target.default.replace('./dist', 'src').replace(/\.js$/, '.ts')
    const text = readFileSync(at(source), 'utf8')
    const names = [...text.matchAll(/export (type )?\{([^}]*)\} from '([^']+)'/g)].flatMap(
      ([, all, list, file]) =>
        list
          .split(',')
          .map((name) => name.trim())
          .filter((name) => name !== '')
          .map((name) => {
            const isType = all !== undefined || name.startsWith('type ')
            return `| \`${name.replace('type ', '')}\` | ${isType ? 'type' : 'value'} | \`${file}\` |`
          }),
    )
    const path = entry.replace(/^\./, 'wardoscope')
    lines.push('', `## \`${path}\``, '', '| name | kind | from |', '| --- | --- | --- |', ...names.sort())
  }
  return `${lines.join('\n')}\n`
}

async function recordSchema() {
  const { recordSchema: schema } = await import(new URL('dist/core/release/record.js', root))
  const json = z.toJSONSchema(schema, { target: 'draft-2020-12' })
  return `${JSON.stringify({ title: "Wardoscope's release record, version 1", ...json }, null, 2)}\n`
}

/** The page of each finding code: its head from the check, the rest from the Markdown beside it. */
async function findingPages() {
  const { checks } = await import(new URL('dist/core/checks/index.js', root))
  const index = ['# Findings', '', 'Made from the code of each check by `npm run generate`.', '']
  index.push('| code | severity | what is wrong |', '| --- | --- | --- |')
  const sorted = [...checks].sort((a, b) => (a.code < b.code ? -1 : 1))
  const pages = sorted.map(({ code, severity, title }) => {
    index.push(`| [\`${code}\`](${code}.md) | ${severity} | ${title} |`)
    const prose = readOrNull(`src/core/checks/${code}.md`)
    if (!prose?.includes('\n## Example\n') || !prose.includes('\n## How to fix it\n'))
      throw new Error(
        `src/core/checks/${code}.md must say what the code means, then "## Example" and "## How to fix it".`,
      )
    return [`docs/findings/${code}.md`, `# ${code}\n\n**${title}.** Severity: ${severity}.\n\n${prose}`]
  })
  return [['docs/findings/README.md', `${index.join('\n')}\n`], ...pages]
}
