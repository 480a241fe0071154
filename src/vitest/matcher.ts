import type { Finding } from '../core/model/report.ts'
import { check } from '../core/pipeline/check.ts'
import type { CheckOptions } from '../core/pipeline/options.ts'
import { holds } from '../core/pipeline/report.ts'
import { preparePath } from '../node/check-path.ts'
import { findingLines } from '../terminal/report.ts'
import { styleFor } from '../terminal/style.ts'

/** How a folder must be fit to ship. What is left out is taken from the project's configuration. */
export interface ShipExpectations
  extends Pick<CheckOptions, 'routes' | 'samples' | 'waivers' | 'limits' | 'checks' | 'holdOn'> {
  readonly site?: string | readonly string[]
  readonly host?: string | NonNullable<CheckOptions['host']>
}

/** Findings reported in a failure; the rest are counted. */
const mostReported = 5

/**
 * The matcher itself, for runners whose `expect` is extended by hand.
 * @param received the path of a project or build folder
 * @throws {FolderError} when there is nothing to look at
 * @throws {UsageError} when an address, host or configuration can't be used
 */
export async function toBeClearToShip(
  received: unknown,
  { site, host, ...given }: ShipExpectations = {},
): Promise<{ pass: boolean; message: () => string }> {
  if (typeof received !== 'string') {
    return { pass: false, message: () => `A folder is named by its path, and this is ${typeof received}.` }
  }
  const { folder, options } = await preparePath(received, { ...given, site, host })
  const report = await check(folder, options)
  const holding = report.findings.filter((finding) => holds(finding, options.holdOn))
  const idle = report.waivers.filter(({ state }) => state === 'unused').map(({ code }) => code)
  const at = report.sites.map(({ address }) => address).join(', ')
  const style = styleFor({ columns: 100 }, false)
  return {
    pass: report.verdict === 'clear',
    message: () =>
      report.verdict === 'clear'
        ? `${received} is clear to ship to ${at}, and was expected not to be.`
        : [
            `${received} is held at ${at}:`,
            '',
            ...holding
              .slice(0, mostReported)
              .flatMap((finding) => [...findingLines(inSource(finding), report, style), '']),
            ...(holding.length === 0 ? [`Its waivers cover nothing any more: ${idle.join(', ')}`] : []),
            ...(holding.length > mostReported ? [`and ${holding.length - mostReported} more`] : []),
          ].join('\n'),
  }
}

/** Where the source is known, lines of the build help nobody who writes it. */
function inSource(finding: Finding): Finding {
  return finding.source
    ? { ...finding, places: finding.places.map((place) => ({ ...place, line: null })) }
    : finding
}
