// Do the tests notice when a rule is wrong? Changes one small thing of a source at a time, runs the tests that should notice,
// and fails when more than a tenth of the changes go unnoticed, or one that no reason is given for.
//   npm run mutants                 all sources of the list
//   npm run mutants -- host         those whose path holds the word
//   --each=N  edits of each source, spread over it (2 when nothing is said)
import { spawn } from 'node:child_process'
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import picomatch from 'picomatch'
import { editsOf } from './edits.mjs'

const root = fileURLToPath(new URL('../../', import.meta.url))
const args = process.argv.slice(2)
const words = args.filter((arg) => !arg.startsWith('--'))
const each = Number(args.find((arg) => arg.startsWith('--each='))?.slice(7) ?? 2)
const { sources, always, reasons } = JSON.parse(readFileSync(new URL('list.json', import.meta.url), 'utf8'))

const files = readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
  .map((path) => `src/${path.replaceAll('\\', '/')}`)
  .filter((path) => path.endsWith('.ts') && !path.endsWith('.test.ts') && !path.endsWith('.d.ts'))
  .sort()
const mutants = Object.entries(sources).flatMap(([pattern, tests]) =>
  matching(pattern)
    .filter((file) => words.length === 0 || words.some((word) => file.includes(word)))
    .flatMap((file) => chosen(file).map((edit) => ({ file, tests, ...edit }))),
)
const copies = Array.from({ length: Math.max(1, cpus().length) }, copyOfTree)
const survivors = []
let done = 0
try {
  const queue = [...mutants]
  await Promise.all(copies.map((copy) => work(copy, queue)))
} finally {
  for (const copy of copies) rmSync(copy, { recursive: true, force: true })
}
report()

function matching(pattern) {
  const matches = picomatch(pattern)
  return files.filter((file) => matches(file))
}

/** Edits spread over a source, and those that must always be tried. */
function chosen(file) {
  const text = readFileSync(join(root, file), 'utf8')
  const all = editsOf(text).map((edit) => ({ ...edit, ...described(text, edit) }))
  const step = Math.max(1, all.length / each)
  const spread = all.filter((_, index) => Math.floor(index / step) !== Math.floor((index - 1) / step))
  const named = always[file] ?? []
  return all.filter(
    (edit) => spread.slice(0, each).includes(edit) || named.some((word) => edit.line.includes(word)),
  )
}

function described(text, { start, end, write }) {
  const from = text.lastIndexOf('\n', start - 1) + 1
  const to = text.indexOf('\n', end)
  const line = text.slice(from, to < 0 ? text.length : to)
  const changed = line.slice(0, start - from) + write + line.slice(end - from)
  return { line: line.trim(), changed: changed.trim() }
}

/** The sources and tests, with the packages of this checkout. */
function copyOfTree() {
  const copy = mkdtempSync(join(tmpdir(), 'mutants-'))
  for (const name of ['src', 'test', 'package.json', 'tsconfig.json', 'docs', 'scripts', 'schemas'])
    cpSync(join(root, name), join(copy, name), { recursive: true })
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'), 'dir')
  return copy
}

async function work(copy, queue) {
  for (let mutant = queue.shift(); mutant; mutant = queue.shift()) {
    const path = join(copy, mutant.file)
    const text = readFileSync(path, 'utf8')
    writeFileSync(path, text.slice(0, mutant.start) + mutant.write + text.slice(mutant.end))
    const noticed = await fails(copy, mutant.tests)
    writeFileSync(path, text)
    done++
    if (!noticed) survivors.push(mutant)
    process.stderr.write(
      `${noticed ? 'noticed' : 'MISSED '} ${done}/${mutants.length} ${mutant.file}: ${mutant.line}  =>  ${mutant.changed}\n`,
    )
  }
}

/** Whether a test fails, or does not end. */
function fails(copy, tests) {
  const vitest = join(root, 'node_modules/vitest/vitest.mjs')
  const flags = ['run', '--bail=1', '--reporter=dot', '--config', 'scripts/mutants/vitest.config.mjs']
  return new Promise((done) => {
    const child = spawn(process.execPath, [vitest, ...flags, ...tests], { cwd: copy, stdio: 'ignore' })
    const timer = setTimeout(() => child.kill('SIGKILL'), 120_000)
    child.on('exit', (code) => {
      clearTimeout(timer)
      done(code !== 0)
    })
  })
}

function report() {
  const keyOf = ({ file, line, changed }) => `${file}: ${line}  =>  ${changed}`
  const unexplained = survivors.filter((mutant) => reasons[keyOf(mutant)] === undefined)
  for (const mutant of survivors)
    console.log(`missed  ${keyOf(mutant)}\n        ${reasons[keyOf(mutant)] ?? 'NO REASON IS GIVEN'}`)
  const share = (100 * survivors.length) / Math.max(1, mutants.length)
  console.log(
    `${mutants.length} changes, ${survivors.length} unnoticed (${share.toFixed(1)} %), ${unexplained.length} of them without a reason`,
  )
  process.exitCode = unexplained.length > 0 || share >= 10 || mutants.length === 0 ? 1 : 0
}
