import { lookup } from 'mrmime'

/** The content type a well-kept host sends for a file name, or null when it knows none. */
export function contentTypeOf(path: string): string | null {
  return lookup(path) ?? null
}
