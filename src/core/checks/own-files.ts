import { isHashed } from '../model/fingerprint.ts'
import { placeAt } from '../model/reading.ts'
import type { Edit } from '../model/report.ts'
import type { CausePlace, Evidence } from './check.ts'

/** What is changed in the files of a folder that nothing builds. */
export interface Rewritten {
  readonly steps: string[]
  readonly edits: Edit[]
}

/** Nobody writes longer lines by hand; UTF-16 units. */
const longestLine = 1_000

/** Places that are changed, and those of them that are listed one by one. */
const mostPlaces = 500
const mostSteps = 20

/**
 * Changes texts where they stand in a folder that nothing builds: what is published there is what somebody wrote. Null where a
 * builder wrote it, and for more places than a person wants to see changed.
 * @param write what is to stand in place of a text; null where that is not known, and then nothing is changed
 * @param needs the variable whose value a person must give for it
 */
export async function rewritten(
  places: readonly CausePlace[],
  write: (text: string) => string | null,
  evidence: Evidence,
  needs?: string,
): Promise<Rewritten | null> {
  if (isBuilt(places, evidence) || places.length === 0 || places.length > mostPlaces) return null
  const edits: Edit[] = []
  for (const { file, offset, length } of places) {
    const [path, source] = await textIn(file, evidence)
    if (source === null || offset === null) return null
    const instead = source.slice(offset, offset + (length ?? 0))
    const text = write(instead)
    if (text === null || isLong(source, offset) || isOfTemplate(instead, evidence)) return null
    const { line, column } = placeAt(path, source, offset)
    edits.push({ file: path, line, column, instead, write: text, ...(needs !== undefined && { needs }) })
  }
  const each = [...new Map(edits.map((edit) => [`${edit.file} ${edit.line} ${edit.column}`, edit])).values()]
  return { steps: stepsOf(each), edits: each }
}

/** Texts that give way to others, one by one as far as a person reads them. */
export function stepsOf(edits: readonly Edit[]): string[] {
  const steps = edits.map(
    ({ file, line, write, instead }) => `In ${file}, line ${line}, write  ${write}  in place of  ${instead}`,
  )
  const more = steps.length - mostSteps
  return more > 1 ? [...steps.slice(0, mostSteps), `And in the same way at ${more} more places.`] : steps
}

/** A file of the folder as the project names it: the folder may be all of the project. */
export async function textIn(
  file: string,
  { folder, projectText }: Evidence,
): Promise<readonly [path: string, text: string | null]> {
  const below = folder.prefix + file
  const text = await projectText(below)
  return text === null ? [file, await projectText(file)] : [below, text]
}

function isBuilt(places: readonly CausePlace[], { survey, facts, folder }: Evidence): boolean {
  const { definition, framework, build, builtInto } = survey
  // Around what a bundler writes, and in a project that is its own site, pages are written by hand.
  if (builtInto !== null)
    return places.some(({ file }) => `${folder.prefix}${file}`.startsWith(`${builtInto}/`))
  if (framework === null && folder.path === '.' && places.every(({ file }) => /\.html?$/.test(file)))
    return false
  return (
    definition !== null || framework !== null || build !== null || facts.some(({ path }) => isHashed(path))
  )
}

/** A page around what a bundler writes may be made of another one, by a script of the project's. */
function isOfTemplate(text: string, { survey, sources }: Evidence): boolean {
  return survey.builtInto !== null && sources.findUrls(text).some(({ file }) => /\.html?$/.test(file))
}

function isLong(source: string, offset: number): boolean {
  const end = source.indexOf('\n', offset)
  return (end < 0 ? source.length : end) - source.lastIndexOf('\n', offset) > longestLine
}
