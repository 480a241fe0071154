// The program is bundled for one reason: Node spends longer finding, checking and compiling a few hundred small
// modules of its parsers than a survey takes. The library stays as it was compiled, module by module.
import { defineConfig } from 'rolldown'

const common = {
  platform: 'node',
  // One parser's main file hides its modules from a bundler; its module file does not.
  resolve: { mainFields: ['module', 'main'] },
}
const output = { minify: process.env.NOMIN ? false : true, codeSplitting: false, comments: { legal: true } }

export default defineConfig([
  // One file, so that what was compiled of it can be kept as one.
  { ...common, input: 'dist/cli/program.js', output: { ...output, file: 'dist/program/program.cjs', format: 'cjs' } },
  { ...common, input: 'dist/node/reading/worker.js', output: { ...output, file: 'dist/program/worker.js', format: 'esm' } },
])
