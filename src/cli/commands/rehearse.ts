import { mkdirSync } from 'node:fs'
import { stat } from 'node:fs/promises'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { largestText } from '../../core/model/folder.ts'
import { check } from '../../core/pipeline/check.ts'
import type { Rehearsable } from '../../core/pipeline/options.ts'
import type { Rehearsal } from '../../core/rehearse/rehearsal.ts'
import { asFolderError, readNamed } from '../../node/regular-file.ts'
import { version } from '../../node/version.ts'
import { writeBeside } from '../../node/write-file.ts'
import { startBrowser } from '../../rehearse/browser.ts'
import { visitByBrowser } from '../../rehearse/browser-visits.ts'
import { harOf } from '../../rehearse/har.ts'
import { type ServerOptions, startHost } from '../../rehearse/host-server.ts'
import { visitByHttp } from '../../rehearse/http-visits.ts'
import type { Stage } from '../../rehearse/respond.ts'
import { StandInBook } from '../../rehearse/stand-in-book.ts'
import { renderRehearsal, requestLine } from '../../terminal/rehearsal.ts'
import { styleFor } from '../../terminal/style.ts'
import { deliver } from '../deliver.ts'
import { atOneSite, type FolderFlags, folderOptions } from '../options.ts'
import type { ReportDestination } from '../output.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `rehearse`, as the command line gives them. */
export interface RehearseFlags extends FolderFlags {
  /** True, or the program of a browser. */
  readonly browser?: boolean | string
  readonly width?: readonly string[]
  readonly online?: boolean
  readonly answers?: string
  readonly har?: string
  readonly shots?: string
  readonly pageTime: string
  readonly time: string
  readonly stay?: boolean
  readonly port: string
  readonly listen: string
  readonly deliveries: readonly ReportDestination[]
  readonly color: boolean
}

/** A phone, a tablet, a desk; CSS pixels. */
const usualWidths = [390, 820, 1280]

/** `--browser dist`: a program is no directory, so that is the path. */
async function withPath(path: string, flags: RehearseFlags): Promise<{ path: string; flags: RehearseFlags }> {
  const { browser } = flags
  if (path !== '.' || typeof browser !== 'string') return { path, flags }
  const isDirectory = await stat(browser).then(
    (found) => found.isDirectory(),
    () => false,
  )
  return isDirectory ? { path: browser, flags: { ...flags, browser: true } } : { path, flags }
}

/** Serves the folder as its host will, and visits every route as a stranger would. */
export async function rehearseCommand(
  given: string,
  written: RehearseFlags,
  streams: Streams,
): Promise<ExitStatus> {
  const { path, flags } = await withPath(given, written)
  const port = numberOf(flags.port, '--port', 0, 65_535)
  const { folder, ...found } = await folderOptions(path, flags, streams)
  const options = atOneSite(found.options, 'rehearse')
  const ended = new AbortController()
  const end = (): void => ended.abort()
  process.once('SIGINT', end)
  process.once('SIGTERM', end)
  try {
    const play = (stage: Rehearsable): Promise<Rehearsal> =>
      rehearse(stage, flags, streams, ended.signal, port)
    const report = await check(folder, { ...options, rehearse: play })
    if (ended.signal.aborted && !flags.stay) {
      throw new FolderError('unreadable', 'The rehearsal was ended before it was done.')
    }
    await deliver(report, flags.deliveries, streams, options, flags.color, (style) =>
      renderRehearsal(report, style),
    )
    return report.verdict === 'clear' ? exit.clear : exit.held
  } finally {
    process.removeListener('SIGINT', end)
    process.removeListener('SIGTERM', end)
  }
}

async function rehearse(
  { site, host, files, routes, build, mask }: Rehearsable,
  flags: RehearseFlags,
  streams: Streams,
  signal: AbortSignal,
  port: number,
): Promise<Rehearsal> {
  if (!build)
    throw new FolderError('missing', 'There is no build folder to serve. Build first, or add --build.')
  const stage: Stage = { site, host, files, folder: build }
  const style = styleFor(streams.err, flags.color)
  const listen = flags.listen
  const onAnswer: NonNullable<ServerOptions['onAnswer']> = (request, reply) => {
    if (flags.stay) streams.err.write(mask.named(requestLine(request, reply, style)))
  }
  const server = await startHost(stage, { port, listen, onAnswer }).catch((error: unknown) => {
    const code = error instanceof Error && 'code' in error ? String(error.code) : 'unknown error'
    throw new UsageError(`The host could not be played at ${listen}:${port}: ${code}.`)
  })
  try {
    const progress = progressOn(streams.err, 'visiting routes')
    const onProgress = progress.report
    const rehearsal = await (flags.browser
      ? inBrowser({ stage, routes, mask, flags, signal, onProgress })
      : visitByHttp({ stage, origin: server.origin, routes, onProgress })
    ).finally(progress.end)
    if (flags.stay) await stay(`${server.origin}${site.base}`, streams, signal)
    return rehearsal
  } finally {
    await server.close()
  }
}

interface InBrowser {
  readonly stage: Stage
  readonly routes: Rehearsable['routes']
  readonly mask: Rehearsable['mask']
  readonly flags: RehearseFlags
  readonly signal: AbortSignal
  readonly onProgress: (done: number) => void
}

async function inBrowser({ stage, routes, mask, flags, signal, onProgress }: InBrowser): Promise<Rehearsal> {
  const answers = flags.answers === undefined ? null : StandInBook.parse(flags.answers, textOf(flags.answers))
  const widths = flags.width ? flags.width.map((text) => numberOf(text, '--width', 200, 4_000)) : usualWidths
  const pageTime = numberOf(flags.pageTime, '--page-time', 1, 300) * 1000
  const allTime = numberOf(flags.time, '--time', 1, 7_200) * 1000
  if (flags.shots !== undefined) makeDirectory(flags.shots)
  const browser = await startBrowser(
    typeof flags.browser === 'string' ? flags.browser : null,
    flags.online === true,
  )
  // Whatever ends the run, the browser ends with it.
  const close = (): void => void browser.close().catch(() => {})
  signal.addEventListener('abort', close)
  try {
    const { pages, ...rehearsal } = await visitByBrowser({
      stage,
      browser,
      routes,
      widths,
      online: flags.online === true,
      answers,
      shots: flags.shots ?? null,
      pageTime,
      allTime,
      signal,
      onProgress,
    })
    if (flags.har !== undefined) {
      const archive = mask.deep(harOf(pages, version))
      writeBeside(flags.har, `${JSON.stringify(archive, null, 2)}\n`)
    }
    return rehearsal
  } finally {
    signal.removeEventListener('abort', close)
    await browser.close().catch(() => {})
  }
}

/** Keeps serving until the person ends it. */
async function stay(address: string, { err }: Streams, signal: AbortSignal): Promise<void> {
  if (signal.aborted) return
  err.write(`Served at ${address} as the host would. End with Ctrl-C.\n`)
  await new Promise<void>((resolve) => signal.addEventListener('abort', () => resolve(), { once: true }))
  err.write('\n')
}

function makeDirectory(path: string): void {
  try {
    mkdirSync(path, { recursive: true })
  } catch (error) {
    throw asFolderError(error, path, 'directory')
  }
}

function textOf(path: string): string {
  try {
    return readNamed(path, largestText).toString('utf8')
  } catch (error) {
    if (error instanceof FolderError) throw new UsageError(error.message)
    throw error
  }
}

function numberOf(text: string, option: string, least: number, most: number): number {
  const number = Number(text)
  if (Number.isInteger(number) && number >= least && number <= most) return number
  throw new UsageError(
    `"${text}" can't be used for ${option}. Write a whole number from ${least} to ${most}.`,
  )
}
