import type { ProjectRow } from '../../../src/core/model/report.ts'
import { Section } from '../parts/Section.tsx'
import { plain } from '../parts/words.ts'
import { type DataColumn, DataTable } from './DataTable.tsx'

const states = [
  { id: 'held', label: 'Held', holds: ({ verdict }: ProjectRow) => verdict === 'held' },
  { id: 'clear', label: 'Clear', holds: ({ verdict }: ProjectRow) => verdict === 'clear' },
  { id: 'unseen', label: 'Not looked at', holds: ({ verdict }: ProjectRow) => verdict === null },
]
const idOf = ({ directory }: ProjectRow): string => directory

const columns: readonly DataColumn<ProjectRow>[] = [
  {
    id: 'project',
    title: 'Project',
    value: ({ directory }) => directory,
    render: ({ directory }) => <bdi className="mono">{plain(directory)}</bdi>,
  },
  {
    id: 'verdict',
    title: 'Verdict',
    value: ({ verdict }) => verdict ?? '',
    render: ({ verdict, problem }) =>
      verdict ? <span className={`verdict-${verdict}`}>{verdict}</span> : plain(problem ?? 'not looked at'),
  },
  {
    id: 'blockers',
    title: 'Blockers',
    value: ({ blockers }) => blockers,
    render: ({ blockers }) => blockers,
    numeric: true,
  },
  {
    id: 'cautions',
    title: 'Cautions',
    value: ({ cautions }) => cautions,
    render: ({ cautions }) => cautions,
    numeric: true,
  },
  {
    id: 'address',
    title: 'Address',
    value: ({ address }) => address ?? '',
    render: ({ address }) => <bdi>{plain(address ?? '–')}</bdi>,
    spare: true,
  },
  {
    id: 'made',
    title: 'Built by, into',
    value: ({ buildCommand }) => buildCommand ?? '',
    render: ({ buildCommand, folder }) => (
      <bdi className="mono">{plain(`${buildCommand ?? '?'}, ${folder ?? '?'}`)}</bdi>
    ),
    spare: true,
  },
]

/** Every front end of a repository that was checked, with what it came to. */
export function Projects({ projects }: { readonly projects: readonly ProjectRow[] }) {
  return (
    <Section title="Projects" about="The front ends of the repository, each with its own configuration.">
      <DataTable label="Projects" rows={projects} columns={columns} states={states} idOf={idOf} />
    </Section>
  )
}
