import type { NodeName } from '../../model/facts.ts'
import { groupedBy, listed } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A script for browsers needs a name that only Node has. */
export const nodeName = defineCheck({
  code: 'project/node-name',
  severity: 'blocker',
  title: 'A script needs a name that only Node has',
  keywords: [
    'process is not defined',
    'global is not defined',
    'Buffer',
    'require is not defined',
    'exports',
  ],
  run,
})

const instead: Readonly<Record<NodeName['name'], string>> = {
  process: 'Ask typeof process first, or let the bundler replace what is read of it.',
  global: 'Write globalThis in its place.',
  Buffer: 'Use Uint8Array and TextEncoder, or import a package that has Buffer for browsers.',
  require: 'Write import in its place, so that the bundler takes the file in.',
  __dirname: 'Use new URL("…", import.meta.url) in its place.',
  __filename: 'Use import.meta.url in its place.',
  exports: 'Let the compiler write ES modules: browsers know no others.',
}

function run(evidence: Evidence): Cause[] {
  // A variable that is read has a finding of its own.
  const files = new Set(evidence.unmet.filter(({ variable }) => variable !== null).map(({ file }) => file))
  const found = evidence.unmet.filter(
    ({ name, variable, file }) => variable === null && (name !== 'process' || !files.has(file)),
  )
  return [...groupedBy(found, ({ name }) => name)].map(([name, places]) => {
    const among = [...new Set(places.map(({ file }) => file))]
    return {
      key: name,
      impact: `The script stops with "${name} is not defined", and what follows in it does not run.`,
      cause: `${listed(among.slice(0, 3))}${among.length > 3 ? ` and ${among.length - 3} more` : ''} ${among.length > 1 ? 'use' : 'uses'} ${name} as soon as ${among.length > 1 ? 'they run' : 'it runs'}; browsers have no such name, and nothing in the build makes it.`,
      places: places.map(({ file, offset, length }) => ({ file, offset, length })),
      source: sourceOf(name, evidence),
      fix: [instead[name as NodeName['name']], rebuild(evidence)],
    }
  })
}

function sourceOf(name: string, { sources }: Evidence): Cause['source'] {
  const written = name === 'require' ? 'require(' : name.startsWith('_') ? name : `${name}.`
  return sources.find(written)
}
