import type { Edit } from '../../model/report.ts'
import { decode, listed, startOfLine } from '../../model/text.ts'
import type { EnvironmentRead } from '../../project/sources/environment-reads.ts'
import { type Cause, type CausePlace, type Evidence, rebuild } from '../check.ts'
import { stepsOf } from '../own-files.ts'

/** Larger scripts are not looked through for it; bytes. */
const largest = 4_000_000
/** A read of the environment by a name that only the running code knows, as it stands in a build. */
const computedRead = /\.env\[(?!["'\d]|`[^`$]{0,100}`\])/

/**
 * `process.env[name]` in code of a page, where the build puts values in place of whole names only: browsers find nothing
 * there, though the variable was set. Known by the read that the build left, and by a name that the build still holds as a text.
 */
export async function readByName(evidence: Evidence): Promise<Cause[]> {
  const { survey, sources } = evidence
  const from = survey.computedReads.find(({ file, line, column }) => {
    const text = sources.texts.get(file) ?? ''
    return text.slice(startOfLine(text, line) + column - 1).startsWith('process.env')
  })
  const given = survey.reads.filter((read) => read.given !== undefined && isMissed(read, evidence))
  if (!from || given.length === 0) return []
  const places = await placesOf(given, evidence)
  const shown = given.filter(({ name }) => places.has(name))
  const [first] = shown
  if (!first) return []
  const names = [...new Set(shown.map(({ name }) => name))]
  const edits = shown.flatMap((read) => editOf(read, evidence))
  return [
    {
      key: names.join(' '),
      severity: shown.every(({ guarded }) => guarded) ? 'caution' : undefined,
      title: 'A variable is read by a name that the build can not see',
      impact: `What needs ${listed(names)} does not work: browsers find no value, set or not.`,
      cause: `${from.file}, line ${from.line}, reads process.env by a name that only the running code knows. The build puts values in place of whole names, as process.env.${first.name}.`,
      places: [...places.values()],
      source: first.place,
      fix: {
        steps: [
          ...(edits.length > 0
            ? stepsOf(edits)
            : [`Read each variable by its whole name: process.env.${first.name}.`]),
          ...unset(names, evidence),
          rebuild(evidence),
        ],
        edits,
      },
    },
  ]
}

function unset(names: readonly string[], { environment }: Evidence): string[] {
  const missing = environment.filter(({ name, definedIn }) => names.includes(name) && definedIn.length === 0)
  return missing.length > 0
    ? [`Set ${listed(missing.map(({ name }) => name))} where the build runs, if it is not set there.`]
    : []
}

/** What copes without a value misses none where there is none. */
function isMissed({ name, guarded }: EnvironmentRead, { environment }: Evidence): boolean {
  const state = environment.find((each) => each.name === name)
  return !guarded || (state?.definedIn.length ?? 0) > 0
}

/** Where the scripts of the build hold the names as texts, by variable; none where they leave no read by a name, or hold a table of values. */
async function placesOf(
  reads: readonly EnvironmentRead[],
  { facts, readFile }: Evidence,
): Promise<Map<string, CausePlace>> {
  const found = new Map<string, CausePlace>()
  const tables = new Set<string>()
  let isRead = false
  for (const { path, kind, size } of facts) {
    const bytes = kind === 'script' && size <= largest ? await readFile(path) : null
    if (!bytes) continue
    const code = decode(bytes)
    isRead ||= computedRead.test(code)
    for (const { name, given = name } of reads) {
      if (new RegExp(`\\b${name}["']?:`).test(code)) tables.add(name)
      // A bundler may put the name in where it sees the call, behind its back: nothing replaces it any more.
      const left = new RegExp(`\\.env\\.(${name})\\b`, 'd').exec(code)?.indices?.[1]
      const at = left?.[0] ?? new RegExp(`(?<=["'\`])${given}["'\`]`).exec(code)?.index
      isRead ||= left !== undefined
      const length = left ? name.length : given.length
      if (at !== undefined && !found.has(name)) found.set(name, { file: path, offset: at, length })
    }
  }
  for (const name of tables) found.delete(name)
  return isRead ? found : new Map()
}

/** `env('NEXT_PUBLIC_API')` gives way to the read by the whole name, with what was to stand in for it. */
function editOf({ name, given = name, place }: EnvironmentRead, { sources }: Evidence): Edit[] {
  const text = sources.texts.get(place.file) ?? ''
  const at = startOfLine(text, place.line) + place.column - 1
  const head = /[\w$.]{1,80}\(\s{0,3}["'`]$/.exec(text.slice(Math.max(0, at - 90), at))?.[0]
  const tail = /^["'`]\s{0,3}(?:,\s{0,3}([^(),\n]{1,80}))?\)/.exec(text.slice(at + given.length))
  if (head === undefined || !tail) return []
  const start = at - head.length
  const { line, column } = { line: place.line, column: place.column - head.length }
  if (column < 1) return []
  const read = `process.env.${name}`
  return [
    {
      file: place.file,
      line,
      column,
      instead: text.slice(start, at + given.length + tail[0].length),
      write: tail[1] === undefined ? read : `(${read} ?? ${tail[1].trim()})`,
    },
  ]
}
