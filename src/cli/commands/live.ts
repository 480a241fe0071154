import { setTimeout as pause } from 'node:timers/promises'
import { hostFileOf, hostSeen } from '../../core/live/host-seen.ts'
import { lookAtLive } from '../../core/live/look.ts'
import { UsageError } from '../../core/model/errors.ts'
import type { Report } from '../../core/model/report.ts'
import { check } from '../../core/pipeline/check.ts'
import { holds } from '../../core/pipeline/report.ts'
import { writeBeside } from '../../node/write-file.ts'
import { liveAsker } from '../../reach/live.ts'
import { renderLive } from '../../terminal/live.ts'
import { deliver } from '../deliver.ts'
import { insteadOf } from '../instead.ts'
import { atOneSite, type FolderFlags, folderOptions } from '../options.ts'
import type { ReportDestination } from '../output.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { releaseAt } from './compare.ts'

/** The options of `live`, as the command line gives them. */
export interface LiveFlags extends FolderFlags {
  readonly route?: readonly string[]
  readonly before?: string
  readonly atOnce: string
  readonly perSecond?: string
  readonly timeout: string
  readonly wait?: string
  readonly writeHost?: string
  readonly instead?: readonly string[]
  readonly credentials?: string
  readonly deliveries: readonly ReportDestination[]
  readonly color: boolean
}

/** Between two looks, while is waited for what has not arrived; milliseconds. */
const between = 5_000

/** Is this folder what the address serves now? */
export async function liveCommand(path: string, flags: LiveFlags, streams: Streams): Promise<ExitStatus> {
  const atOnce = numberOf('--at-once', flags.atOnce, 64)
  const wait = flags.wait === undefined ? 0 : numberOf('--wait', flags.wait, 7_200) * 1000
  const timeout = numberOf('--timeout', flags.timeout, 300) * 1000
  const perSecond = flags.perSecond === undefined ? null : numberOf('--per-second', flags.perSecond, 1_000)
  const instead = new Map((flags.instead ?? []).map(insteadOf))
  const credentials = flags.credentials === undefined ? null : credentialsIn(flags.credentials)
  const { folder, ...found } = await folderOptions(path, flags, streams)
  const options = atOneSite(found.options, 'live')
  if (!options.site) throw new UsageError('Say which address is asked, with --site.')
  const asksPlain = instead.size === 0
  const ask = liveAsker({
    timeout,
    perSecond,
    instead,
    authorization: credentials === null ? null : { value: credentials, origin: options.site.origin },
  })
  const earlier = flags.before === undefined ? null : await releaseAt(flags.before, options, flags)
  streams.err.write(`Asking ${options.site.address} for what the folder holds.\n`)
  const until = Date.now() + wait
  let isWritten = false
  for (;;) {
    const progress = progressOn(streams.err, 'asked')
    const report = await check(folder, {
      ...options,
      earlier,
      live: async (stage) => {
        if (flags.writeHost !== undefined && !isWritten) {
          isWritten = true
          writeBeside(flags.writeHost, hostFileOf(await hostSeen({ ...stage, ask }), stage.site))
          streams.err.write(`How the host was seen to answer: ${flags.writeHost}\n`)
        }
        return lookAtLive(stage, { ask, atOnce, asksPlain, onProgress: progress.report })
      },
    }).finally(progress.end)
    const hasArrived = report.live !== null && report.live?.differing.length === 0
    if (hasArrived || Date.now() + between > until) return tell(report, flags, streams, options)
    streams.err.write(`${report.live?.differing.length} not as built; looking again.\n`)
    await pause(between)
  }
}

async function tell(
  report: Report,
  flags: LiveFlags,
  streams: Streams,
  options: Parameters<typeof deliver>[3],
): Promise<ExitStatus> {
  const findings = report.findings.filter(({ code }) => code.startsWith('live/'))
  const held = findings.some((finding) => holds(finding, options.holdOn))
  const shown = { ...report, findings, verdict: held ? ('held' as const) : ('clear' as const) }
  await deliver(shown, flags.deliveries, streams, options, flags.color, (style) => renderLive(shown, style))
  return held ? exit.held : exit.clear
}

function numberOf(option: string, text: string, most: number): number {
  const number = Number(text)
  if (number > 0 && number <= most) return number
  throw new UsageError(`"${text}" is no number for ${option}. Write one up to ${most}, as in ${option} 6.`)
}

/** What a protected preview wants, by the name of the variable that holds it: it stands in no list of processes. */
function credentialsIn(name: string): string {
  const value = process.env[name]
  if (value === undefined || !/^[\x20-\x7e]+$/.test(value))
    throw new UsageError(
      `The variable ${name} holds no credentials. Set it to what the header authorization says, as in "Basic …" or "Bearer …".`,
    )
  return value
}
