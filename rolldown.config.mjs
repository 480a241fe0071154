// The program is bundled for one reason: Node spends longer finding, checking and compiling a few hundred small
// modules of its parsers than a survey takes. The library stays as it was compiled, module by module.
import { defineConfig } from 'rolldown'

const common = {
  platform: 'node',
  // A browser's driver is an optional peer.
  external: ['playwright-core'],
  // One parser's main file hides its modules from a bundler; its module file does not.
  resolve: { mainFields: ['module', 'main'] },
}
const output = { minify: process.env.NOMIN ? false : true, codeSplitting: false, comments: { legal: true } }

/** Modules of Node's that take it milliseconds to load, and that most runs never call. */
const seldom = ['child_process', 'crypto', 'fs/promises', 'http', 'https', 'os', 'v8', 'worker_threads']

/** Texts of one byte a character are read and compiled in half the time. All that is beyond ASCII stands in literals. */
const inAscii = (code) =>
  code.replace(/[^\x00-\x7f]/g, (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, '0')}`)

/** Loads these when a member of theirs is first used. */
const loadLate = {
  name: 'load-late',
  renderChunk(code) {
    const call = new RegExp(`require\\((["'])node:(${seldom.join('|')})\\1\\)`, 'g')
    const late = 'const loadLate=(name)=>new Proxy({},{get:(_,key)=>require(name)[key]});'
    return `${late}\n${inAscii(code.replace(call, 'loadLate("node:$2")'))}`
  },
}

export default defineConfig([
  // One file, so that what was compiled of it can be kept as one.
  {
    ...common,
    input: 'dist/cli/program.js',
    plugins: [loadLate],
    output: { ...output, file: 'dist/program/program.cjs', format: 'cjs' },
  },
  { ...common, input: 'dist/node/reading/worker.js', output: { ...output, file: 'dist/program/worker.js', format: 'esm' } },
  // What looks beside a bundler has to be ready before the bundler is.
  {
    ...common,
    input: 'dist/bundler/beside.js',
    plugins: [loadLate],
    output: { ...output, file: 'dist/program/beside.cjs', format: 'cjs' },
  },
])
