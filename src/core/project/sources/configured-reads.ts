import type { ConfiguredVariable } from '../../frameworks/framework.ts'
import { placeAt } from '../../model/reading.ts'
import type { Trace } from '../../model/search.ts'
import { escapePattern } from '../../model/text.ts'
import type { Survey } from '../survey.ts'
import type { EnvironmentRead } from './environment-reads.ts'
import type { Sources } from './sources.ts'

interface ConfiguredReads {
  readonly reads: readonly EnvironmentRead[]
  readonly traces: readonly Trace[]
}

/**
 * Variables that are read in other ways than from the environment itself: members of an object which the framework fills,
 * and markers in the markup of a page. Reads are counted on from `first`.
 */
export function configuredReads(sources: Sources, survey: Survey, first: number): ConfiguredReads {
  const reads: EnvironmentRead[] = []
  const traces: Trace[] = []
  for (const variable of survey.configured) {
    for (const read of readsOf(sources, variable)) {
      if (!read.guarded) traces.push({ ...traceOf(variable), read: first + reads.length })
      reads.push(read)
    }
  }
  for (const { marker, ...read } of markersIn(sources, survey)) {
    if (marker) traces.push({ kind: 'marker', name: read.name, read: first + reads.length, marker })
    reads.push(read)
  }
  for (const { trace, ...read } of templateReadsIn(sources, survey)) {
    if (trace) traces.push({ ...trace, name: read.name, read: first + reads.length })
    reads.push(read)
  }
  return { reads, traces }
}

/** Fewer characters stand around many things. */
const tellingBefore = 8

/** What templates of pages read, and what each has around it. */
function templateReadsIn(
  sources: Sources,
  { definition }: Survey,
): (EnvironmentRead & { readonly trace: { kind: 'blank'; before: string; after: string } | null })[] {
  const pattern = definition?.templateReads
  if (!pattern) return []
  return [...sources.texts]
    .filter(([file]) => file.endsWith('.html'))
    .flatMap(([file, text]) =>
      [...text.matchAll(pattern)].map((match) => {
        const [whole, name = ''] = match
        const [before = ''] = text
          .slice(Math.max(0, match.index - 80), match.index)
          .split(/[\n\r]|\}\}/)
          .slice(-1)
        const end = match.index + whole.length
        const [after = ''] = text.slice(end, end + 20).split(/[\n\r]|\{\{/)
        const guarded = /\b(?:default|if|with|and|or|cond|else)\b/.test(whole)
        const trace =
          !guarded && before.trim().length >= tellingBefore && after.trim() !== ''
            ? { kind: 'blank' as const, before: before.trimStart(), after: after.trimEnd() }
            : null
        return { name, place: placeAt(file, text, match.index), guarded, passedOn: true as const, trace }
      }),
    )
}

function traceOf({ name, members, siblings, missing }: ConfiguredVariable): Omit<Trace, 'read'> & Trace {
  const key = members.at(-1) ?? ''
  return { kind: 'property', name, read: 0, key, siblings, missing }
}

/** What follows a member that may be missing, and what stands before one that is only requested. */
const copes = /^\s*(?:\?\?|\|\||\?[^.:]|\?\.)/
const asks = /(?:!|\bif\s*\(\s*|\btypeof\s+)[\w.$?()]*$/

function readsOf(sources: Sources, { name, members, passedOn }: ConfiguredVariable): EnvironmentRead[] {
  const reads: EnvironmentRead[] = []
  const pattern = new RegExp(
    `(?<![\\w$])${members.map(escapePattern).join('\\s*\\??\\.\\s*')}(?![\\w$])`,
    'g',
  )
  for (const [file, text] of sources.texts) {
    if (/\.(?:css|scss|mdx?)$/.test(file)) continue
    for (const { 0: match, index } of text.matchAll(pattern)) {
      const after = text.slice(index + match.length, index + match.length + 8)
      const before = text.slice(Math.max(0, index - 40), index)
      const guarded = copes.test(after) || asks.test(before)
      reads.push({ name, place: placeAt(file, text, index), guarded, ...(passedOn && { passedOn }) })
    }
  }
  return reads
}

/** `%NAME%`, which a build leaves as it is when the name is not set, and `<%= NAME %>`, which it can't build then. */
const markers = /%(\w+)%|<%[=-]\s*(?:process\.env\.)?(\w+)\s*%>/g

function markersIn(
  sources: Sources,
  { definition, prefixes }: Survey,
): (EnvironmentRead & { readonly marker: string | null })[] {
  const known = prefixes?.value?.filter((prefix) => prefix !== '') ?? []
  if (!definition?.placeholders || known.length === 0) return []
  return [...sources.texts]
    .filter(([file]) => file.endsWith('.html'))
    .flatMap(([file, text]) =>
      [...text.matchAll(markers)].flatMap((match) => {
        const name = match[1] ?? match[2] ?? ''
        if (!known.some((prefix) => name.startsWith(prefix))) return []
        const marker = match[1] === undefined ? null : match[0]
        return [{ name, place: placeAt(file, text, match.index), guarded: false, marker }]
      }),
    )
}
