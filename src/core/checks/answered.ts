import { answer } from '../host/answer.ts'
import type { Evidence } from './evidence.ts'

/** What the host answers in place of the service; null when a file or a rule of its own answers. */
export function answered(url: string, { host, site, requested }: Evidence): string | null {
  const path = new URL(url, site.origin).pathname
  const { status, by } = answer(host, site, requested.index, path)
  if (status >= 400) return `status ${status}`
  return by === 'fallback' ? `the entry page and status ${status}, which looks like success` : null
}
