import { bytesInWords } from '../../../src/core/model/text.ts'
import { SeverityMark } from '../../../viewer/src/parts/SeverityMark.tsx'
import { plain } from '../../../viewer/src/parts/words.ts'
import { type DataColumn, type DataState, DataTable } from '../../../viewer/src/tables/DataTable.tsx'
import { Findings } from './charts/Findings.tsx'
import { Purges } from './charts/Purges.tsx'
import { dayOf } from './charts/Timeline.tsx'
import { Verdicts } from './charts/Verdicts.tsx'
import { Weights } from './charts/Weights.tsx'
import type { LoggedFinding } from './entry.ts'
import type { Project, Step } from './history.ts'

/** The releases of one project: as plots, in numbers, and what came and went in words. */
export function ProjectHistory({ project: { name, steps } }: { readonly project: Project }) {
  const changed = steps
    .filter(({ fresh, solved }) => (fresh?.length ?? 0) + (solved?.length ?? 0) > 0)
    .reverse()
  return (
    <>
      <section className="log-numbers">
        <h2>{plain(name)} over time</h2>
        <div className="log-plots">
          <Verdicts steps={steps} />
          <Findings steps={steps} />
          <Weights steps={steps} />
          <Purges steps={steps} />
        </div>
      </section>
      <section className="log-numbers">
        <h2>In numbers</h2>
        <DataTable
          label="Releases"
          rows={[...steps].reverse()}
          columns={columns}
          states={states}
          idOf={({ entry }) => entry.id}
        />
      </section>
      {changed.length > 0 ? (
        <section className="log-changes">
          <h2>What came and went</h2>
          <ol className="bare">
            {changed.map((step) => (
              <li key={step.entry.id}>
                <h3>{dayOf(step)}</h3>
                <Changes verb="New" findings={step.fresh ?? []} />
                <Changes verb="Solved" findings={step.solved ?? []} />
              </li>
            ))}
          </ol>
        </section>
      ) : null}
    </>
  )
}

function Changes({ verb, findings }: { readonly verb: string; readonly findings: readonly LoggedFinding[] }) {
  if (findings.length === 0) return null
  return (
    <ul className="bare">
      {findings.map(({ fingerprint, severity, title, code }) => (
        <li key={fingerprint}>
          <span className="log-verb">{verb}</span> <SeverityMark severity={severity} /> {plain(title)}{' '}
          <code className="quiet">{plain(code)}</code>
        </li>
      ))}
    </ul>
  )
}

const unknown = '–'

const columns: readonly DataColumn<Step>[] = [
  { id: 'when', title: 'Release', value: dayOf, render: dayOf },
  {
    id: 'verdict',
    title: 'Verdict',
    value: ({ entry }) => entry.verdict,
    render: ({ entry }) => <b className={`log-${entry.verdict}`}>{entry.verdict}</b>,
  },
  number('fresh', 'New', ({ fresh }) => fresh?.length ?? null, String),
  number('solved', 'Solved', ({ solved }) => solved?.length ?? null, String),
  number('heaviest', 'Heaviest first visit', ({ heaviest }) => heaviest, bytesInWords),
  number('purge', 'To purge', ({ purge }) => purge, String),
  number('bytes', 'Folder', ({ entry }) => entry.report?.bytes ?? null, bytesInWords),
  {
    id: 'kept',
    title: 'Kept',
    value: keptOf,
    render: keptOf,
    spare: true,
  },
]

/** A column of numbers; what is not known is last. */
function number(
  id: string,
  title: string,
  value: (step: Step) => number | null,
  write: (value: number) => string,
): DataColumn<Step> {
  return {
    id,
    title,
    numeric: true,
    value: (step) => value(step) ?? -1,
    render: (step) => {
      const known = value(step)
      return known === null ? unknown : write(known)
    },
    ...(id === 'bytes' || id === 'solved' ? { spare: true } : {}),
  }
}

function keptOf({ entry: { report, record } }: Step): string {
  return [report && 'report', record && 'record'].filter(Boolean).join(' and ')
}

const states: readonly DataState<Step>[] = [
  { id: 'held', label: 'Held', holds: ({ entry }) => entry.verdict === 'held' },
  { id: 'clear', label: 'Clear', holds: ({ entry }) => entry.verdict === 'clear' },
]
