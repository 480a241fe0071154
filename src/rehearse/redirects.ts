import type { HttpReply, Stage } from './respond.ts'

/** More redirects than this are a circle, as browsers count them (Fetch standard, "HTTP-redirect fetch"). */
const mostRedirects = 20

/** An answer behind its redirects, the address it is at, and the one of another site that it leads to instead. */
type Settled = HttpReply & { readonly address: string; readonly leaves: string | null }

/**
 * Follows the redirects of the own site, since a browser asks the network for where an intercepted one leads. A circle ends as the
 * redirect it is.
 */
export async function settled(
  { site }: Stage,
  from: URL,
  ask: (target: string) => Promise<HttpReply>,
): Promise<Settled> {
  let at = from
  for (let hops = 0; ; hops++) {
    const reply = await ask(at.pathname + at.search)
    const { location } = reply.headers
    if (location === undefined || !URL.canParse(location, at.href) || hops === mostRedirects)
      return { ...reply, address: at.href, leaves: null }
    const next = new URL(location, at.href)
    if (next.origin !== site.origin) return { ...reply, address: at.href, leaves: next.href }
    at = next
  }
}
