import type { Unclear } from '../sent.ts'
import type { Context } from './server.ts'

/** Where the search for a location ended. */
export interface Located {
  /** Null for none: the server block itself. */
  readonly location: Context | null
  /** Whether the visitor is sent to the same path with a slash: only what is passed on begins there. */
  readonly addsSlash: boolean
  /** The first pattern on the way that is not followed. */
  readonly unclear: Unclear | null
  readonly match: RegExpExecArray | null
}

/**
 * nginx's own search (ngx_http_core_find_location): an exact path; the longest beginning, and in it the same again; then patterns
 * in their order, unless the beginning says that none is tried.
 */
export function locate(outer: Context, uri: string): Located {
  const nothing: Located = { location: null, addsSlash: false, unclear: null, match: null }
  const exact = outer.inside.find(({ kind, path }) => kind === 'exact' && path === uri)
  if (exact) return { ...nothing, location: exact }
  const passed = outer.inside.find(
    ({ kind, path, passes }) => kind === 'prefix' && passes && path === `${uri}/`,
  )
  if (passed) return { ...nothing, location: passed, addsSlash: true }
  const best = longestIn(outer, uri)
  const nested = best ? locate(best, uri) : nothing
  if (nested.addsSlash || nested.location?.kind === 'exact' || nested.location?.kind === 'pattern')
    return nested
  const byPattern = best?.isLast ? null : patternIn(outer, uri)
  if (byPattern?.location) return byPattern
  const unclear = nested.unclear ?? byPattern?.unclear ?? null
  return { ...nested, unclear, location: nested.location ?? best }
}

function longestIn({ inside }: Context, uri: string): Context | null {
  let best: Context | null = null
  for (const each of inside)
    if (each.kind === 'prefix' && uri.startsWith(each.path) && each.path.length >= (best?.path.length ?? 0))
      best = each
  return best
}

function patternIn({ inside }: Context, uri: string): Located {
  let unclear: Unclear | null = null
  for (const each of inside) {
    if (each.kind !== 'pattern') continue
    if (!each.pattern) unclear ??= each.unclear
    const match = each.pattern?.exec(uri) ?? null
    if (!match) continue
    const deeper = locate(each, uri)
    return {
      ...deeper,
      location: deeper.location ?? each,
      match: deeper.match ?? match,
      unclear: unclear ?? deeper.unclear,
    }
  }
  return { location: null, addsSlash: false, unclear, match: null }
}
