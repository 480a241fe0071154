import type { Examined, Served, Tried } from '../checks/evidence.ts'
import type { Mask } from '../model/mask.ts'
import { compareReleases } from '../release/compare.ts'
import { releaseOf } from '../release/release.ts'
import { weigh } from '../release/weight.ts'
import type { Route } from '../requests/routes.ts'
import type { ExaminedOutput } from './examine-output.ts'
import type { Target } from './open.ts'
import type { CheckOptions } from './options.ts'

/**
 * What takes more than reading: services are asked, the build is rehearsed, weighed, and compared with the release before
 * it, each only when somebody asked for it.
 */
export async function tryOut(
  { build }: Target,
  { site, host }: Served,
  { requestedWith, ...examined }: ExaminedOutput,
  mask: Mask,
  options: CheckOptions,
): Promise<Examined & Tried> {
  const reached = (await options.reach?.(site, examined.endpoints, (text) => mask.named(text))) ?? []
  const { index: files, routes } = examined.requested
  const rehearsal = (await options.rehearse?.({ site, host, files, routes, build, mask })) ?? null
  // Links that only running code draws lead to routes too.
  const drawn = (rehearsal?.linked ?? []).map(
    (path): Route => ({ path, from: { by: 'a link that a script draws' } }),
  )
  const requested = drawn.length > 0 ? requestedWith(drawn) : examined.requested
  const delivery = await weigh(examined.facts, requested, build && (options.compress?.(build) ?? null))
  const weighed: Examined = { ...examined, requested, delivery }
  const shipped = { ...weighed, site, build, named: (text: string): string => mask.named(text) }
  options.onShipped?.(shipped)
  const comparison = options.earlier
    ? compareReleases(options.earlier, await releaseOf(shipped), { site, host })
    : null
  const { earlier = null } = options
  const { facts, requested: asked } = weighed
  const live =
    (build && (await options.live?.({ site, host, files, facts, routes: asked.routes, build, earlier }))) ??
    null
  return { ...weighed, reached, rehearsal, live, comparison }
}
