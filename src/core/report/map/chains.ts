import type { Edit, Finding, Report } from '../../model/report.ts'

/** One link of a chain: what it is, and its text. */
export interface ChainLink {
  readonly kind: 'visitor' | 'request' | 'build' | 'source' | 'fix'
  readonly text: string
  readonly more: string
}

/** How what a visitor sees comes from a line of the sources. */
export interface Chain {
  readonly title: string
  readonly code: string
  readonly severity: Finding['severity']
  readonly links: readonly ChainLink[]
}

/** Chains that are drawn; the heaviest come first. */
const mostChains = 8

/** The causes as chains: from the request that fails back to the page or script that asks, and to the line of the source. */
export function chainsOf({ findings }: Report): { readonly chains: readonly Chain[]; readonly left: number } {
  const standing = findings.filter(({ waived, severity }) => !waived && severity !== 'note')
  return {
    chains: standing.slice(0, mostChains).map(chainOf),
    left: Math.max(0, standing.length - mostChains),
  }
}

function toDo({ lines, write, moveTo }: Edit): ChainLink {
  if (moveTo !== undefined) return { kind: 'fix', text: moveTo, more: 'to move it to' }
  return { kind: 'fix', text: (lines?.after ?? write).trim().split('\n')[0] ?? '', more: 'to write' }
}

function chainOf({ title, code, severity, places, source, count, fix }: Finding): Chain {
  const [first] = places
  const request = places.find((place) => place.request !== null)
  const edit = fix.edits[0]
  const links: (ChainLink | null)[] = [
    request?.request
      ? {
          kind: 'request',
          text: request.request,
          more: request.status === null ? 'requested' : `answered ${request.status}`,
        }
      : null,
    first
      ? {
          kind: 'build',
          text: first.line === null ? first.file : `${first.file}:${first.line}:${first.column ?? 1}`,
          more: count > 1 ? `and ${count - 1} more` : 'in the build',
        }
      : null,
    source ? { kind: 'source', text: `${source.file}:${source.line}`, more: 'in the source' } : null,
    edit ? toDo(edit) : null,
  ]
  return { title, code, severity, links: links.filter((link) => link !== null) }
}
