import { join, resolve } from 'node:path'
import { clearScreenDown, cursorTo } from 'node:readline'
import { acceptedName } from '../../core/configuration/accepted.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import type { Report } from '../../core/model/report.ts'
import { printable } from '../../core/model/text.ts'
import { check } from '../../core/pipeline/check.ts'
import type { CheckOptions } from '../../core/pipeline/options.ts'
import { between } from '../../core/report/between.ts'
import { configurationNames } from '../../node/configuration/load.ts'
import { isBelow } from '../../node/opening/above.ts'
import { type Looked, watching } from '../../node/watching.ts'
import { renderBetween } from '../../terminal/between.ts'
import { renderReport } from '../../terminal/report.ts'
import type { Style } from '../../terminal/style.ts'
import { deliver } from '../deliver.ts'
import { folderOptions } from '../options.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import type { CheckFlags } from './check.ts'

/** A check of what is there now; null while there is nothing yet that could be judged. */
interface Look {
  readonly report: Report
  readonly options: CheckOptions
  /** What is looked at again: the folder, and what says how. */
  readonly paths: readonly string[]
  /** The directories that hold all of these. */
  readonly roots: readonly string[]
}

/**
 * Checks, and again whenever the folder has come to rest, until somebody presses Ctrl-C. A folder that is being written is never judged: something
 * worse than before counts only after a longer rest.
 */
export async function watchCommand(path: string, flags: CheckFlags, streams: Streams): Promise<ExitStatus> {
  refuse(flags)
  let last = await lookAt(path, flags, streams)
  await show(null, last, flags, streams)
  const { err } = streams
  const watcher = await watching(last.roots, last.paths, async ({ isCalm, isVoid }): Promise<Looked> => {
    const next = await lookAgain(path, flags, streams)
    if (isVoid()) return 'done'
    if (typeof next === 'string') {
      if (!isCalm) return 'not sure'
      err.write(`${printable(next)} Waiting for the next build.\n`)
      return 'done'
    }
    const change = between(last.report, next.report)
    if (change.fresh.length > 0 && !isCalm) return 'not sure'
    const isSame =
      change.fresh.length + change.solved.length === 0 && next.report.verdict === last.report.verdict
    const before = last
    last = next
    if (!isSame) await show(before, next, flags, streams)
    return 'done'
  })
  err.write('Watching. Ctrl-C ends it.\n')
  await ended()
  await watcher.close()
  return last.report.verdict === 'clear' ? exit.clear : exit.held
}

/** @throws {UsageError} when an option can't stand beside `--watch` */
function refuse({ all, build, record, deliveries }: CheckFlags): void {
  const word = all ? '--all' : build ? '--build' : record === undefined ? null : '--record'
  if (word !== null)
    throw new UsageError(`${word} can't stand beside --watch, which looks at one folder again and again.`)
  const open = deliveries.find(({ format, out }) => out === null && format.name !== 'text')
  if (open)
    throw new UsageError(
      `--watch tells what changed in words. Give --format ${open.format.name} its own --out.`,
    )
}

async function lookAt(path: string, flags: CheckFlags, streams: Streams): Promise<Look> {
  const { folder, options } = await folderOptions(path, flags, streams)
  const report = await check(folder, options)
  const { origin } = folder
  if (!origin) throw new UsageError(`${path} is no folder on this disk. Only such a folder can be watched.`)
  const names = [...configurationNames, acceptedName, 'package.json']
  const { repository } = report
  const project = join(origin.root, repository?.project ?? origin.directory)
  // A folder by itself is all there is; one that a person names may be anywhere.
  const built = repository ? resolve(project, report.folder.path) : project
  return {
    report,
    options,
    roots: isBelow(built, project) ? [project] : [project, built],
    paths: [built, ...names.map((name) => join(project, name))],
  }
}

/** The same while somebody works: what can't be looked at just now is one sentence. */
async function lookAgain(path: string, flags: CheckFlags, streams: Streams): Promise<Look | string> {
  try {
    const look = await lookAt(path, flags, streams)
    const empty = look.report.findings.find(({ code }) => code === 'project/not-built')
    return empty ? empty.cause : look
  } catch (error) {
    if (error instanceof FolderError || error instanceof UsageError) return error.message
    throw error
  }
}

async function show(before: Look | null, now: Look, flags: CheckFlags, streams: Streams): Promise<void> {
  const { report, options } = now
  const words = (style: Style): string =>
    before === null
      ? renderReport(report, style)
      : `\n${time()}\n${renderBetween(report, between(before.report, report), style)}`
  if (before !== null && streams.out.isTTY === true) {
    cursorTo(process.stdout, 0, 0)
    clearScreenDown(process.stdout)
  }
  await deliver(report, flags.deliveries, streams, options, flags.color, words)
}

function time(): string {
  return new Date().toTimeString().slice(0, 8)
}

function ended(): Promise<void> {
  return new Promise((resolve) => {
    process.once('SIGINT', () => resolve())
    process.once('SIGTERM', () => resolve())
  })
}
