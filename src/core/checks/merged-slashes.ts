import type { Endpoint } from '../endpoints/endpoint.ts'
import type { Evidence } from './check.ts'

/** Whether a path with slashes in a row is one of this folder with one in their place. */
export function isThereWithOne(
  pathname: string,
  { site, requested }: Pick<Evidence, 'site' | 'requested'>,
): boolean {
  if (!pathname.includes('//')) return false
  const path = merged(pathname)
  if (!path.startsWith(site.base)) return false
  return path === site.base || requested.index.fileAt(path.slice(site.base.length)) !== null
}

/** With one slash wherever there are several. */
export function merged(path: string): string {
  return path.replace(/\/{2,}/g, '/')
}

/** `//api/tides`: the first step of a path that a browser takes for a host. Nobody calls a host of the network so on purpose. */
export function isHostByMistake({ url, kind }: Pick<Endpoint, 'url' | 'kind'>): boolean {
  return kind === 'local name' && /^\/\/[\w-]+\//.test(url)
}
