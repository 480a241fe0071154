import { join, relative } from 'node:path'
import { createTwoFilesPatch } from 'diff'
import { holdsValues } from '../../core/edits/edit.ts'
import { type Fixable, type FixState, fixable, movesOf } from '../../core/edits/outcome.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { joinUp } from '../../core/model/folder.ts'
import type { Finding, Report } from '../../core/model/report.ts'
import { printable } from '../../core/model/text.ts'
import { unknown } from '../../core/model/unknown.ts'
import { behindBase } from '../../core/pipeline/behind-base.ts'
import { check } from '../../core/pipeline/check.ts'
import { openProject } from '../../core/pipeline/open.ts'
import { freshCommand } from '../../core/project/build-command.ts'
import { preparePath } from '../../node/check-path.ts'
import { changedFiles, tryFixes, writeEdits } from '../../node/fixing/try-fixes.ts'
import { git } from '../../node/git/git.ts'
import { isBelow, real, repositoryOf } from '../../node/opening/above.ts'
import { renderFixes } from '../../terminal/fix.ts'
import { styleFor } from '../../terminal/style.ts'
import { atOneSite, type FolderFlags, folderOptions, pathOptions } from '../options.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `fix`, as the command line gives them. */
export interface FixFlags extends FolderFlags {
  readonly code?: readonly string[]
  readonly value?: readonly string[]
  readonly write?: boolean
  readonly anyway?: boolean
  readonly timeout: string
  readonly color: boolean
}

/** A project as it is on disk. */
interface OnDisk {
  readonly root: string
  readonly directory: string
  readonly output: string | null
  readonly command: string | null
  /** Nothing builds it: its files are published as they are. */
  readonly isAsWritten: boolean
}

/** Makes the edits that are known in a copy, builds and checks that, and shows those that are proved as a patch. */
export async function fixCommand(path: string, flags: FixFlags, streams: Streams): Promise<ExitStatus> {
  const prepared = await folderOptions(path, { ...flags, build: false }, streams)
  const options = atOneSite(prepared.options, 'fix')
  const project = await projectOf(path, prepared.folder, flags.project ?? null)
  const report = await check(prepared.folder, options)
  const chosen = chosenOf(report, flags.code ?? [])
  if (chosen.length === 0) {
    streams.err.write('Nothing to fix: nothing is found that holds this build or casts a doubt on it.\n')
    return exit.clear
  }
  const fixes = fixable(chosen, new Map((flags.value ?? []).map(givenValue)))
  const states = new Map<string, FixState>()
  let fresh: readonly Finding[] = []
  if (fixes.length > 0 && flags.build !== false) {
    const before = [...report.findings, ...(await behindBase(prepared.folder, options, report))]
    const tried = await tryAll(fixes, { path, flags, streams, project, before })
    for (const [fingerprint, state] of tried.states) states.set(fingerprint, state)
    fresh = tried.fresh
    const failure = tried.failure?.split('\n').map(printable).join('\n')
    if (failure !== undefined) streams.err.write(`The build of the copy failed:\n${failure}\n\n`)
  }
  const shown = fixes.map((fix) => ({
    ...fix,
    state: states.get(fix.finding.fingerprint) ?? ('not tried' as const),
  }))
  const others = chosen.filter((finding) => !fixes.some((fix) => fix.finding === finding))
  const style = styleFor(streams.err, flags.color)
  streams.err.write(`\n${renderFixes(shown, others, fresh, style)}\n`)
  const kept = shown.filter(({ state }) => state === 'proved' || flags.build === false)
  await hand(kept, project, flags, streams)
  const left = chosen.filter((finding) => !kept.some((fix) => fix.finding === finding))
  return left.some(({ severity }) => severity === 'blocker') ? exit.held : exit.clear
}

async function projectOf(
  path: string,
  folder: Awaited<ReturnType<typeof folderOptions>>['folder'],
  name: string | null,
): Promise<OnDisk> {
  const found = await openProject(folder, { project: name })
  const origin = found?.project.origin ?? folder.origin
  if (!origin)
    throw new UsageError(`${path} is no project on this disk. Only the sources of a project can be changed.`)
  const { build = null, publishDirectory = null, definition = null, builtInto = null } = found?.survey ?? {}
  const home = join(origin.root, origin.directory)
  // A project may read and write anywhere in its repository.
  const root = real(repositoryOf(home) ?? origin.root)
  return {
    root,
    directory: relative(root, real(home)),
    // Pages around what a bundler writes are sources.
    output: builtInto ?? publishDirectory?.value ?? null,
    command: freshCommand({ build, definition }),
    isAsWritten: build === null && definition === null && publishDirectory === null,
  }
}

function chosenOf({ findings }: Report, codes: readonly string[]): Finding[] {
  // What is only worth knowing is changed where somebody asks for it by its code.
  const found = findings.filter(
    ({ code, severity, waived }) => !waived && (severity !== 'note' || codes.includes(code)),
  )
  const known = [...new Set(found.map(({ code }) => code))]
  for (const code of codes)
    if (!known.includes(code))
      throw new UsageError(unknown('finding', code, known.length > 0 ? known : ['none']))
  return codes.length === 0 ? found : found.filter(({ code }) => codes.includes(code))
}

interface Trying {
  readonly path: string
  readonly flags: FixFlags
  readonly streams: Streams
  readonly project: OnDisk
  readonly before: readonly Finding[]
}

async function tryAll(
  fixes: readonly Fixable[],
  { path, flags, streams, project, before }: Trying,
): ReturnType<typeof tryFixes> {
  const { command } = project
  if (command === null && !project.isAsWritten)
    throw new UsageError(
      'The build command of this project is not known. Try --no-build, which shows the edits unproved.',
    )
  if (
    project.output !== null &&
    !isBelow(join(project.root, project.directory, project.output), project.root)
  )
    throw new UsageError(
      `The build writes ${project.output}, which is outside of what would be copied. Try --no-build, which shows the edits unproved.`,
    )
  const { err } = streams
  const abort = new AbortController()
  const stop = (): void => abort.abort()
  const timer = setTimeout(stop, secondsOf(flags.timeout) * 1000)
  process.once('SIGINT', stop)
  err.write(
    command === null
      ? 'Checking a copy with the edits: nothing builds this folder.\n'
      : `Building with the edits in a copy: ${printable(command)}\n`,
  )
  const progress = progressOn(err, 'lines of the build')
  let lines = 0
  try {
    const tried = await tryFixes(fixes, {
      ...project,
      command,
      before,
      check: async (root, variables) => (await checkAt({ root, variables }, path, project, flags)).findings,
      onOutput: (text) => {
        lines += text.split('\n').length - 1
        progress.report(lines)
      },
      onStep: (what) => {
        progress.end()
        err.write(`${command === null ? 'Checking' : 'Building'} once more: ${what}\n`)
      },
      signal: abort.signal,
    })
    if (abort.signal.aborted)
      throw new FolderError('unreadable', 'The build was ended before it was done. Nothing was changed.')
    return tried
  } finally {
    progress.end()
    clearTimeout(timer)
    process.removeListener('SIGINT', stop)
  }
}

/** The same check of a copy, with the configuration that the project has. */
async function checkAt(
  { root, variables }: { readonly root: string; readonly variables: Readonly<Record<string, string>> },
  path: string,
  { directory }: OnDisk,
  flags: FixFlags,
): Promise<Report> {
  const { options } = await preparePath(path, pathOptions(flags))
  const copy = await preparePath(root, {
    ...pathOptions(flags),
    project: directory === '' ? null : directory,
    cache: false,
  })
  const { site, sites, host, routes, samples, checks, frameworks, waivers, limits } = options
  const said = { site, sites, host, routes, samples, checks, frameworks, waivers, limits }
  const given = Object.fromEntries(Object.entries(said).filter(([, value]) => value !== undefined))
  const environment = { ...copy.options.environment, ...variables }
  return check(copy.folder, { ...copy.options, ...given, environment })
}

/** Prints the edits as a patch, or makes them in the project. @throws {UsageError} where work would be lost */
async function hand(
  fixes: readonly Fixable[],
  project: OnDisk,
  flags: FixFlags,
  { out, err }: Streams,
): Promise<void> {
  const home = join(project.root, project.directory)
  const changed = changedFiles(fixes, home)
  const moves = movesOf(fixes)
  if (flags.write !== true) {
    const prefix = ((await git(home, ['rev-parse', '--show-prefix'])) ?? '').trim()
    // What is in an environment file is shown to nobody.
    const held = new Set(
      fixes.flatMap(({ edits }) => edits.flatMap((edit) => (holdsValues(edit) ? [edit.file] : []))),
    )
    for (const file of held)
      err.write(`${printable(file)} holds values, so its change is not in the patch: --write makes it.\n`)
    for (const { file, before, after } of changed.filter((each) => !held.has(each.file))) {
      const [from, to] = [
        before === null ? '/dev/null' : `a/${joinUp(prefix, file)}`,
        `b/${joinUp(prefix, file)}`,
      ]
      out.write(createTwoFilesPatch(from, to, before ?? '', after).replace(/^=+\n/, ''))
    }
    for (const { from, to } of moves) out.write(renamed(joinUp(prefix, from), joinUp(prefix, to)))
    return
  }
  const files = changed.map(({ file }) => file)
  const status = files.length > 0 ? ((await git(home, ['status', '--porcelain', '--', ...files])) ?? '') : ''
  // A file that git does not know can't be had back either.
  const dirty = status.split('\n').filter((line) => line !== '')
  if (dirty.length > 0 && flags.anyway !== true)
    throw new UsageError(
      `${dirty[0]?.slice(3)} has changes that are not committed. Commit them, or give --anyway.`,
    )
  writeEdits(fixes, home)
  const written = [...files, ...moves.map(({ to }) => to)]
  err.write(written.length > 0 ? `Written: ${printable(written.join(', '))}\n` : 'Nothing was written.\n')
}

/** A moved file as git writes it in a patch: nothing of what it holds is shown. */
function renamed(from: string, to: string): string {
  return `diff --git a/${from} b/${to}\nsimilarity index 100%\nrename from ${from}\nrename to ${to}\n`
}

function givenValue(text: string): [string, string] {
  const [, name, value] = /^([A-Za-z_]\w*)=(.*)$/s.exec(text) ?? []
  if (name !== undefined && value !== undefined && !/[\r\n]/.test(value)) return [name, value]
  throw new UsageError(
    'A value is written as in --value VITE_SAILINGS_API=https://api.skerryline.example, on one line.',
  )
}

function secondsOf(text: string): number {
  const seconds = Number(text)
  if (seconds > 0 && seconds <= 3_600) return seconds
  throw new UsageError(`"${text}" is no time to wait. Write seconds, 3600 at most, as in --timeout 600.`)
}
