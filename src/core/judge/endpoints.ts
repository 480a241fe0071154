import { isLoopback } from '../model/address.ts'
import type { EndpointLiteral, FileFacts } from '../model/facts.ts'
import type { EndpointReport } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import type { Sources } from '../survey/sources/sources.ts'

/**
 * The absolute URLs in the build that are requested, and the loopback ones that are not, each with its judgement.
 * `called`: handed to a request, or written by this project. `library text`: bundled with a library, for its own use.
 */
export function judgeEndpoints(site: Site, facts: readonly FileFacts[], sources: Sources): EndpointReport[] {
  const found = new Map<string, EndpointReport>()
  for (const file of facts) {
    for (const endpoint of file.endpoints) {
      const url = URL.canParse(endpoint.url) ? new URL(endpoint.url) : null
      if (!url) continue
      const kind = isLoopback(url.hostname)
        ? 'loopback'
        : url.origin === site.origin
          ? 'own origin'
          : 'other origin'
      const called = isCalled(endpoint, file, kind === 'loopback' ? sources : null)
      if (!called && kind !== 'loopback') continue
      const before = found.get(endpoint.url)
      const judgement = called || before?.judgement === 'called' ? 'called' : 'library text'
      found.set(endpoint.url, { url: endpoint.url, kind, places: [], judgement })
    }
  }
  return [...found.values()].sort((a, b) => (a.url < b.url ? -1 : 1))
}

function isCalled(endpoint: EndpointLiteral, { sightings }: FileFacts, sources: Sources | null): boolean {
  if (endpoint.flow !== null) return true
  if (sightings.some(({ read, offset }) => read === null && offset === endpoint.offset)) return true
  if (!endpoint.begins) return false
  return sources?.find(endpoint.url) != null || sources?.find(new URL(endpoint.url).origin) != null
}
