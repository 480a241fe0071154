import type { EnvironmentState, Report } from '../../../src/core/model/report.ts'
import { Section } from '../parts/Section.tsx'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'
import { type DataColumn, DataTable } from './DataTable.tsx'

const sound = new Set<EnvironmentState['state']>(['injected', 'guarded', 'unused', 'unknown'])
const states = [
  { id: 'wrong', label: 'Wrong', holds: ({ state }: EnvironmentState) => !sound.has(state) },
  {
    id: 'injected',
    label: 'In the build',
    holds: ({ injectedIn }: EnvironmentState) => injectedIn.length > 0,
  },
  { id: 'unused', label: 'Unused', holds: ({ state }: EnvironmentState) => state === 'unused' },
]
const idOf = ({ name }: EnvironmentState): string => name

const columns: DataColumn<EnvironmentState>[] = [
  {
    id: 'name',
    title: 'Variable',
    value: ({ name }) => name,
    render: ({ name }) => <bdi className="mono">{plain(name)}</bdi>,
  },
  {
    id: 'state',
    title: 'State',
    value: ({ state }) => state,
    render: ({ state }) => <span className={sound.has(state) ? '' : 'bad'}>{state}</span>,
  },
  places('defined', 'Defined in', ({ definedIn }) => definedIn),
  places('read', 'Read at', ({ readAt }) => readAt),
  places('injected', 'In the build at', ({ injectedIn }) => injectedIn),
]

function places(
  id: string,
  title: string,
  of: (row: EnvironmentState) => EnvironmentState['readAt'],
): DataColumn<EnvironmentState> {
  return {
    id,
    title,
    value: (row) =>
      of(row)
        .map(({ file, line }) => `${file}:${line}`)
        .join(' '),
    render: (row) => {
      const [first, ...more] = of(row)
      if (!first) return <span className="quiet">–</span>
      return (
        <>
          <Where place={{ file: first.file, line: first.line }} />
          {more.length > 0 ? <span className="quiet"> +{more.length}</span> : null}
        </>
      )
    },
    spare: id !== 'read',
  }
}

/** The environment variables that the project reads, with what became of each. Never a value. */
export function Variables({ report }: { readonly report: Report }) {
  return (
    <Section title="Variables" about="What the project reads from its environment. Values are never shown.">
      {report.environment.length === 0 ? (
        <p className="nothing">The project reads no variables that reach the build.</p>
      ) : (
        <DataTable
          label="Variables"
          rows={report.environment}
          columns={columns}
          states={states}
          idOf={idOf}
        />
      )}
    </Section>
  )
}
