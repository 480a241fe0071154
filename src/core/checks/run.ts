import { thrownByOwnCode } from '../model/errors.ts'
import { nameOf } from '../model/folder.ts'
import { fixedPart, hole, type Reference, withoutQuery } from '../model/reference.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Request } from '../requests/request.ts'
import { fails } from '../requests/request.ts'
import { type Cause, inFull, type Reported } from './cause.ts'
import type { Check } from './check.ts'
import type { Evidence, Known } from './evidence.ts'
import { checks as ours } from './index.ts'
import { inOrder } from './order.ts'

/**
 * Runs the checks, those that explain failing requests better before the others. A request that one cause claims
 * is not shown to later checks, so one cause is one finding.
 */
export async function runChecks(
  checks: readonly Check[],
  evidence: Known,
  signal?: AbortSignal,
): Promise<Reported<Check>[]> {
  const claimed = new Set<Request | RouteAnswer>()
  const found: Reported<Check>[] = []
  const wrong = evidence.requested.requests.filter((each) => fails(each) && !isOfLibrary(each, evidence))
  for (const check of inOrder(checks)) {
    signal?.throwIfAborted()
    const failing = wrong.filter((request) => !claimed.has(request))
    const unanswered = evidence.requested.routes.filter((route) => route.status >= 400 && !claimed.has(route))
    for (const cause of await causesOf(check, { ...evidence, failing, unanswered, reported: [...found] })) {
      for (const request of cause.claims ?? []) claimed.add(request)
      found.push({ check, cause: inFull(doubted(cause, check)) })
    }
  }
  return found
}

/** Where the answers hang on what is not followed of a server's configuration, nothing is proved. */
function doubted(cause: Cause, check: Check): Cause {
  const claims = cause.claims ?? []
  const isBlocker = (cause.severity ?? check.severity) === 'blocker'
  const isUnclear = claims.length > 0 && claims.every((each) => 'answer' in each && each.answer.unclear)
  return isBlocker && isUnclear ? { ...cause, severity: 'caution' } : cause
}

/** A check that does not come with the package and throws is its author's to repair: the error names it. */
async function causesOf(check: Check, evidence: Evidence): Promise<readonly Cause[]> {
  try {
    return await check.run(evidence)
  } catch (error) {
    if (ours.includes(check)) throw error
    throw thrownByOwnCode(`The check ${check.code}`, error)
  }
}

/** What a library fetches, or puts names behind: in a project, what its sources do not name may never be asked for. */
function isOfLibrary({ places }: Request, known: Known): boolean {
  return places.every(
    ({ file, reference }) =>
      isAnyDirectory(reference, known) ||
      isAnyWorker(file, reference, known) ||
      (isOnlyPossible(reference) &&
        known.sources.files.length > 0 &&
        !isWritten(fixedPart(reference), known)),
  )
}

/** Whether a source writes a path, or what follows the base path that the build puts before it. */
function isWritten(path: string, { sources, site }: Known): boolean {
  if (sources.find(path) !== null) return true
  const below = path.startsWith(site.base) ? path.slice(site.base.length) : ''
  return below.length > 1 && below !== path.slice(1) && sources.find(below) !== null
}

function isOnlyPossible(reference: Reference): boolean {
  return (
    reference.kind === 'data' || (reference.pattern !== undefined && fixedPart(reference) !== reference.raw)
  )
}

/** In a bundle a library may register a worker only where somebody wants one; what a page writes itself is run. */
function isAnyWorker(file: string, { kind, raw }: Reference, { sources }: Known): boolean {
  if (kind !== 'service-worker' || /\.html?$/.test(file)) return false
  return sources.find(nameOf(withoutQuery(raw))) === null
}

/** The name of a directory is one of routes too, or of the bundler: it counts where a source of the project writes it. */
function isAnyDirectory(reference: Reference, { sources, requested }: Known): boolean {
  if (!reference.pattern?.endsWith(`/${hole}`)) return false
  return sources.files.length === 0 || requested.index.has(`${fixedPart(reference).slice(1)}index.html`)
}
