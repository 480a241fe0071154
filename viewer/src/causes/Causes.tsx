import type { Payload } from '../../../src/core/report/formats/html.ts'
import { Choice } from '../parts/Choice.tsx'
import { SearchBox } from '../parts/SearchBox.tsx'
import { Section } from '../parts/Section.tsx'
import { useView } from '../parts/useView.ts'
import { matches, severities, textOf } from '../parts/words.ts'
import { CauseCard } from './CauseCard.tsx'

/** Fewer need no tools to find one. */
const few = 5

/** The causes by weight; the first is open, since most people come for it. */
export function Causes({ payload }: { readonly payload: Payload }) {
  const { findings, sites } = payload.report
  const [filter, setFilter] = useView('show', 'all')
  const [search, setSearch] = useView('search', '')
  if (findings.length === 0) {
    return (
      <Section title="Causes">
        <p className="nothing">Nothing was found that a visitor would see.</p>
      </Section>
    )
  }
  const standing = findings.filter(({ waived }) => !waived)
  const counted: readonly (readonly [string, string, number])[] = [
    ['all', 'All', findings.length],
    ...severities.map(
      (severity) =>
        [severity, `${severity}s`, standing.filter((each) => each.severity === severity).length] as const,
    ),
    ['accepted', 'accepted', findings.length - standing.length],
  ]
  const shown = findings.filter(
    (finding) =>
      (filter === 'all' ||
        (filter === 'accepted' ? finding.waived : !finding.waived && finding.severity === filter)) &&
      (search === '' || matches(textOf(finding), search)),
  )
  return (
    <Section title="Causes" about="The heaviest first.">
      {findings.length > few ? (
        <div className="tools">
          <SearchBox label="Search causes" value={search} onChange={setSearch} />
          <Choice
            label="Which causes"
            value={filter}
            onChange={setFilter}
            options={counted
              .filter(([id, , count]) => id === 'all' || count > 0)
              .map(([id, label, count]) => ({ id, label, count }))}
          />
        </div>
      ) : null}
      <p className="unseen" role="status">
        {shown.length} of {findings.length} causes shown
      </p>
      <div className="causes">
        {shown.map((finding, index) => (
          <CauseCard
            key={finding.fingerprint}
            finding={finding}
            explanation={payload.explanations[finding.code] ?? null}
            severalSites={sites.length > 1}
            open={index === 0}
          />
        ))}
        {shown.length === 0 ? <p className="nothing">No cause matches.</p> : null}
      </div>
    </Section>
  )
}
