// The program is bundled for one reason: Node spends longer finding, checking and compiling a few hundred small
// modules of its parsers than a survey takes. The library stays as it was compiled, module by module.
import { defineConfig } from 'rolldown'

export default defineConfig({
  input: 'dist/cli/program.js',
  platform: 'node',
  // One parser's main file hides its modules from a bundler; its module file does not.
  resolve: { mainFields: ['module', 'main'] },
  // One file, so that what was compiled of it can be kept as one.
  output: { file: 'dist/program/program.cjs', format: 'cjs', minify: true, codeSplitting: false, comments: { legal: true } },
})
