import { existsSync, mkdirSync, renameSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { applied } from '../../core/edits/edit.ts'
import {
  editsByFile,
  type Fixable,
  type FixState,
  movesOf,
  outcomesOf,
  variablesOf,
} from '../../core/edits/outcome.ts'
import { FolderError } from '../../core/model/errors.ts'
import { largestText } from '../../core/model/folder.ts'
import type { Finding } from '../../core/model/report.ts'
import { readNamed } from '../regular-file.ts'
import { runBuild } from '../run-build.ts'
import { writeBeside } from '../write-file.ts'
import { type Scratch, scratchOf } from './scratch.ts'

/** A project whose fixes are tried. */
export interface Tried {
  /** What is copied: the repository, or the project by itself. */
  readonly root: string
  /** The project's directory in it. */
  readonly directory: string
  /** The directory that the build writes, from the project. */
  readonly output: string | null
  /** Null where nothing builds it. */
  readonly command: string | null
  readonly before: readonly Finding[]
  /** Checks the project in a copy of the root, with variables that its build got. */
  readonly check: (root: string, variables: Readonly<Record<string, string>>) => Promise<readonly Finding[]>
  readonly onOutput: (text: string) => void
  readonly onStep: (what: string) => void
  readonly signal: AbortSignal
}

/** What became of each fix, and what is new with those that made it worse. */
export interface Outcome {
  readonly states: ReadonlyMap<string, FixState>
  readonly fresh: readonly Finding[]
  /** The last lines of a build that failed. */
  readonly failure: string | null
}

/** Fixes that are tried one by one, after all together were not enough; each is a build. */
const mostAlone = 8
const lastLines = 20

/**
 * Makes the edits in a copy of the project, builds and checks it. Where something is left or new, they are tried one after the other.
 * @throws {FolderError} when the project can't be copied
 */
export async function tryFixes(fixes: readonly Fixable[], project: Tried): Promise<Outcome> {
  const together = await tryOnce(fixes, project)
  if (project.signal.aborted) return together
  if (fixes.length < 2 || isProved(together)) return together
  const gone = fixes.filter(({ finding }) => together.states.get(finding.fingerprint) === 'proved')
  if (gone.length > 0) {
    // What was not enough may be left out; the others may need each other.
    project.onStep('those that were enough')
    const again = await tryOnce(gone, project)
    if (isProved(again)) return { ...again, states: new Map([...together.states, ...again.states]) }
  }
  return oneByOne(fixes, project)
}

/** Each fix beside those that were proved before it: what is kept works together. */
async function oneByOne(fixes: readonly Fixable[], project: Tried): Promise<Outcome> {
  const states = new Map<string, FixState>()
  const fresh: Finding[] = []
  let failure: string | null = null
  let kept: readonly Fixable[] = []
  for (const [index, fix] of fixes.entries()) {
    const { code, fingerprint } = fix.finding
    if (index >= mostAlone || project.signal.aborted) {
      states.set(fingerprint, 'not tried')
      continue
    }
    project.onStep(kept.length === 0 ? `${code} by itself` : `${code} beside what was enough`)
    const tried = await tryOnce([...kept, fix], project)
    const state = tried.states.get(fingerprint) ?? 'not tried'
    // It is gone, and another that was proved is there again.
    states.set(fingerprint, state === 'proved' && !isProved(tried) ? 'worse' : state)
    if (isProved(tried)) kept = [...kept, fix]
    fresh.push(...tried.fresh)
    failure ??= tried.failure
  }
  return { states, fresh, failure }
}

function isProved({ states }: Outcome): boolean {
  return [...states.values()].every((state) => state === 'proved')
}

async function tryOnce(fixes: readonly Fixable[], project: Tried): Promise<Outcome> {
  const scratch = scratchOf(
    project.root,
    project.output === null ? null : join(project.directory, project.output),
  )
  try {
    writeEdits(fixes, join(scratch.root, project.directory))
    const variables = variablesOf(fixes)
    const failure = await built(scratch, project, variables)
    if (failure !== null) return { states: all(fixes, 'not built'), fresh: [], failure }
    return {
      ...outcomesOf(fixes, project.before, await project.check(scratch.root, variables)),
      failure: null,
    }
  } finally {
    scratch.remove()
  }
}

/** The end of what a build printed that failed; null when it did not. */
async function built(
  scratch: Scratch,
  { directory, command, onOutput, signal }: Tried,
  variables: Readonly<Record<string, string>>,
): Promise<string | null> {
  if (command === null) return null
  let printed = ''
  const { status } = await runBuild(
    join(scratch.root, directory),
    command,
    (text) => {
      printed = (printed + text).slice(-20_000)
      onOutput(text)
    },
    { signal, variables },
  )
  return status === 0 ? null : printed.trimEnd().split('\n').slice(-lastLines).join('\n')
}

function all(fixes: readonly Fixable[], state: FixState): Map<string, FixState> {
  return new Map(fixes.map(({ finding }) => [finding.fingerprint, state]))
}

/**
 * Makes edits in the files of a directory, all or none of a file, and moves those that are to be elsewhere.
 * @throws {FolderError} when a file does not hold what an edit expects
 */
export function writeEdits(fixes: readonly Fixable[], directory: string): void {
  const moves = movesOf(fixes)
  for (const { from, to } of moves)
    if (!existsSync(join(directory, from)) || existsSync(join(directory, to)))
      throw new FolderError(
        'unreadable',
        `${from} can't be moved to ${to} any more. Nothing was written; check again.`,
      )
  for (const { file, after } of changedFiles(fixes, directory)) {
    mkdirSync(dirname(join(directory, file)), { recursive: true })
    writeBeside(join(directory, file), after)
  }
  for (const { from, to } of moves) {
    mkdirSync(dirname(join(directory, to)), { recursive: true })
    renameSync(join(directory, from), join(directory, to))
  }
}

/** A file that edits change, before and after. */
export interface ChangedFile {
  readonly file: string
  /** Null where it is not there yet. */
  readonly before: string | null
  readonly after: string
}

/** @throws {FolderError} when a file does not hold what an edit expects */
export function changedFiles(fixes: readonly Fixable[], directory: string): ChangedFile[] {
  return [...editsByFile(fixes)].map(([file, edits]) => {
    const before = textOf(join(directory, file))
    const after = applied(before, edits)
    if (after === null)
      throw new FolderError(
        'unreadable',
        `${file} does not hold what was read from it any more. Nothing was written to it; check again.`,
      )
    return { file, before, after }
  })
}

function textOf(path: string): string | null {
  try {
    return readNamed(path, largestText).toString('utf8')
  } catch (error) {
    if (error instanceof FolderError && error.reason === 'missing') return null
    throw error
  }
}
