import { execFileSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

/** What the compiled program, library and viewer are made from. */
const inputs = ['src', 'viewer/src', 'rolldown.config.mjs', 'tsconfig.build.json', 'package.json']

/** The last files that a build writes. */
const outputs = ['dist/program/program.cjs', 'dist/viewer/viewer.js']

/**
 * Builds what is older than its sources before any test runs: most tests of faces run the compiled program, and on a stale one
 * they would tell nothing of the code that is there.
 */
export function setup(): void {
  if (outputs.some((path) => !existsSync(path) || timeOf(path) < newest(inputs)))
    run('build', 'dist is older than src')
  if (!existsSync('dist/demo/demo.json')) run('demo:build', 'the demo builds are not there')
}

function run(script: string, why: string): void {
  process.stderr.write(`${why}: npm run ${script}\n`)
  execFileSync('npm', ['run', script], { stdio: ['ignore', 'ignore', 'inherit'] })
}

function newest(paths: readonly string[]): number {
  return Math.max(
    ...paths.map((path) => (statSync(path).isDirectory() ? newest(inside(path)) : timeOf(path))),
  )
}

function inside(directory: string): string[] {
  return readdirSync(directory)
    .filter((name) => !name.endsWith('.test.ts'))
    .map((name) => join(directory, name))
}

function timeOf(path: string): number {
  return statSync(path).mtimeMs
}
