import { shownUrl } from '../../core/endpoints/endpoints.ts'
import { UsageError } from '../../core/model/errors.ts'
import { printable } from '../../core/model/text.ts'
import { check } from '../../core/pipeline/check.ts'
import { holds } from '../../core/pipeline/report.ts'
import { isForbiddenHeader, sentMethod } from '../../core/reach/cors.ts'
import { reach } from '../../core/reach/reach.ts'
import type { Asker, Question } from '../../core/reach/reached.ts'
import { networkAsker } from '../../reach/ask.ts'
import { renderReach } from '../../terminal/reach.ts'
import { deliver } from '../deliver.ts'
import { insteadOf } from '../instead.ts'
import { atOneSite, type FolderFlags, folderOptions } from '../options.ts'
import type { ReportDestination } from '../output.ts'
import { progressOn } from '../progress.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `reach`, as the command line gives them. */
export interface ReachFlags extends FolderFlags {
  readonly method?: string
  readonly header?: readonly string[]
  readonly credentials?: boolean
  readonly instead?: readonly string[]
  readonly timeout: string
  /** Nobody needs to hear who will be asked: in the demo, it is ourselves. */
  readonly unannounced?: true
  readonly deliveries: readonly ReportDestination[]
  readonly color: boolean
}

/** Do the services that the build calls allow this site? */
export async function reachCommand(path: string, flags: ReachFlags, streams: Streams): Promise<ExitStatus> {
  const asking = {
    method: methodOf(flags.method),
    headers: new Map((flags.header ?? []).map(headerOf)),
    credentials: flags.credentials === true,
  }
  const instead = new Map((flags.instead ?? []).map(insteadOf))
  const timeout = secondsOf(flags.timeout) * 1000
  const { folder, ...found } = await folderOptions(path, flags, streams)
  const options = atOneSite(found.options, 'reach')
  if (!options.site) {
    throw new UsageError('Requests are sent on behalf of a site. Say where this will be served with --site.')
  }
  const progress = progressOn(streams.err, 'asking services')
  const ask = networkAsker({ timeout, instead, onProgress: progress.report })
  const asker =
    (named: (text: string) => string): Asker =>
    (questions) => {
      if (!flags.unannounced) announce(questions, options.site?.origin ?? '', named, streams)
      return ask(questions)
    }
  const report = await check(folder, {
    ...options,
    reach: (site, endpoints, named) => reach(site, endpoints, asking, asker(named)),
  }).finally(progress.end)
  const findings = report.findings.filter(({ code }) => code.startsWith('endpoint/'))
  const held = findings.some((finding) => holds(finding, options.holdOn))
  const shown = { ...report, findings, verdict: held ? ('held' as const) : ('clear' as const) }
  await deliver(shown, flags.deliveries, streams, options, flags.color, (style) => renderReach(shown, style))
  return held ? exit.held : exit.clear
}

/**
 * Who is asked, and what for, before the first of them hears of it: on the error stream, as progress is.
 * @param named shows values of variables by their names, as the report does
 */
function announce(
  questions: readonly Question[],
  origin: string,
  named: (text: string) => string,
  streams: Streams,
): void {
  if (questions.length === 0) return
  const lines = questions.map(
    ({ url, request }) => `  ${printable(`${sentMethod(request.method)} ${named(shownUrl(url))}`)}`,
  )
  const all = [`Asking on behalf of ${origin}:`, ...lines]
  streams.err.write(`${all.join('\n')}\n\n`)
}

function methodOf(name: string | undefined): string | null {
  if (name === undefined) return null
  if (/^[A-Za-z]+$/.test(name)) return name
  throw new UsageError(`"${name}" is no method. Write one as in --method POST.`)
}

function headerOf(text: string): [string, string] {
  const match = /^([\w!#$%&'*+.^`|~-]+)\s*[=:]([^\r\n]*)$/.exec(text)
  const [, name = '', value = ''] = match ?? []
  if (isForbiddenHeader(name))
    throw new UsageError(`A page can't set the header ${name}: the browser does. Leave it out.`)
  if (match) return [name, value.trim()]
  throw new UsageError(`"${text}" is no header. Write one as in --header content-type=application/json.`)
}

function secondsOf(text: string): number {
  const seconds = Number(text)
  if (seconds > 0 && seconds <= 300) return seconds
  throw new UsageError(`"${text}" is no time to wait. Write seconds, 300 at most, as in --timeout 5.`)
}
