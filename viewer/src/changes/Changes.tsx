import type { Comparison } from '../../../src/core/model/report.ts'
import { bytesInWords } from '../../../src/core/model/text.ts'
import { CopyButton } from '../parts/CopyButton.tsx'
import { ScrollText } from '../parts/ScrollText.tsx'
import { Section } from '../parts/Section.tsx'
import { plain } from '../parts/words.ts'
import { type DataColumn, DataTable } from '../tables/DataTable.tsx'

interface Change {
  readonly path: string
  readonly how: 'added' | 'changed' | 'new hash' | 'gone'
  readonly before: number
  readonly after: number
}

const states = (['added', 'changed', 'new hash', 'gone'] as const).map((how) => ({
  id: how,
  label: how,
  holds: (change: Change) => change.how === how,
}))
const idOf = ({ path, how }: Change): string => `${how} ${path}`

const columns: DataColumn<Change>[] = [
  {
    id: 'path',
    title: 'File',
    value: ({ path }) => path,
    render: ({ path }) => <bdi className="mono">{plain(path)}</bdi>,
  },
  { id: 'how', title: 'Change', value: ({ how }) => how, render: ({ how }) => how },
  size('before', 'Before'),
  size('after', 'Now'),
]

function size(id: 'before' | 'after', title: string): DataColumn<Change> {
  return {
    id,
    title,
    value: (change) => change[id],
    render: (change) => (change[id] === 0 ? '–' : bytesInWords(change[id])),
    numeric: true,
    spare: id === 'before',
  }
}

/** What this release changes since an earlier one, and what caches must forget. */
export function Changes({ comparison }: { readonly comparison: Comparison }) {
  const { same, moved, kept, changed, renamed, added, gone, purge, purgeBelow } = comparison
  const changes: Change[] = [
    ...changed.map(({ path, before, after }) => ({ path, how: 'changed' as const, before, after })),
    ...renamed.map(({ path, before, after }) => ({ path, how: 'new hash' as const, before, after })),
    ...added.map(({ path, bytes }) => ({ path, how: 'added' as const, before: 0, after: bytes })),
    ...gone.map(({ path, bytes }) => ({ path, how: 'gone' as const, before: bytes, after: 0 })),
  ]
  const about = same
    ? 'Every file is as it was in the earlier release.'
    : moved
      ? `The site moves from ${plain(moved.from)} to ${plain(moved.to)}.`
      : `${kept.toLocaleString('en')} files are as they were.`
  return (
    <Section title="Changes" about={about}>
      {changes.length > 0 ? (
        <DataTable label="Changes" rows={changes} columns={columns} states={states} idOf={idOf} />
      ) : null}
      <Differences title="Routes" {...comparison.routes} />
      <Differences title="Services" {...comparison.endpoints} />
      <Differences title="Variables" {...comparison.variables} />
      {purge.length > 0 ? (
        <figure className="block">
          <figcaption>
            <h3>To purge</h3>
            <CopyButton text={purge.join('\n')} what="the paths to purge" />
          </figcaption>
          <ScrollText label="Paths to purge">{purge.map(plain).join('\n')}</ScrollText>
        </figure>
      ) : null}
      {purgeBelow === null ? null : (
        <p className="quiet">
          The page for unknown paths changed too: purge whatever else a cache holds below {plain(purgeBelow)}.
        </p>
      )}
    </Section>
  )
}

function Differences({
  title,
  won,
  lost,
}: {
  readonly title: string
  readonly won: readonly string[]
  readonly lost: readonly string[]
}) {
  if (won.length + lost.length === 0) return null
  return (
    <>
      <h3>{title}</h3>
      <ul className="bare">
        {won.map((each) => (
          <li key={`+${each}`}>
            <span className="quiet">new</span> <bdi className="mono">{plain(each)}</bdi>
          </li>
        ))}
        {lost.map((each) => (
          <li key={`-${each}`}>
            <span className="quiet">gone</span> <bdi className="mono">{plain(each)}</bdi>
          </li>
        ))}
      </ul>
    </>
  )
}
