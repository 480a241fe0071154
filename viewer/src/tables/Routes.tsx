import type { Report } from '../../../src/core/model/report.ts'
import { bytesInWords } from '../../../src/core/model/text.ts'
import { downloaded } from '../../../src/core/release/weight.ts'
import { Section } from '../parts/Section.tsx'
import { originInWords, plain } from '../parts/words.ts'
import { type DataColumn, DataTable } from './DataTable.tsx'
import { RouteLoads } from './RouteLoads.tsx'
import { Status } from './Status.tsx'

type Route = Report['routes'][number]

const states = [
  { id: 'failing', label: 'Failing', holds: ({ status, loops }: Route) => status >= 400 || loops },
  { id: 'redirected', label: 'Redirected', holds: ({ redirects }: Route) => redirects.length > 0 },
  { id: 'fallback', label: 'By the fallback', holds: ({ by }: Route) => by === 'fallback' },
]

const idOf = ({ site, path }: Route, index: number): string => `${index} ${site}${path}`

/** The routes a visitor can open directly, and what answers each. */
export function Routes({ report }: { readonly report: Report }) {
  const visits = new Map(report.delivery.firstVisit.map((visit) => [visit.entryFile, visit]))
  const weightOf = ({ entryFile }: Route): number => {
    const visit = visits.get(entryFile ?? '')
    return visit ? downloaded(visit) : 0
  }
  const columns: DataColumn<Route>[] = [
    {
      id: 'path',
      title: 'Route',
      value: ({ path }) => path,
      render: (route) => {
        const { path, pattern, entryFile } = route
        return (
          <>
            <RouteLoads route={route} visit={visits.get(entryFile ?? '')} />
            {pattern && pattern !== path ? <span className="quiet"> {plain(pattern)}</span> : null}
          </>
        )
      },
    },
    ...(report.sites.length > 1
      ? [
          {
            id: 'site',
            title: 'Address',
            value: ({ site }: Route) => site,
            render: ({ site }: Route) => plain(site),
            spare: true,
          },
        ]
      : []),
    {
      id: 'status',
      title: 'Status',
      value: ({ status }) => status,
      render: ({ status, loops }) => <Status status={status} bad={status >= 400 || loops} />,
      numeric: true,
    },
    {
      id: 'answered',
      title: 'Answered by',
      value: ({ answeredBy }) => answeredBy,
      render: ({ answeredBy, redirects, loops }) => (
        <>
          {plain(answeredBy)}
          {loops ? ' (goes round for ever)' : redirects.length > 0 ? ` (by way of ${redirects.length})` : ''}
        </>
      ),
    },
    {
      id: 'entry',
      title: 'Entry file',
      value: ({ entryFile }) => entryFile ?? '',
      render: ({ entryFile }) => <bdi className="mono">{plain(entryFile ?? '–')}</bdi>,
      spare: true,
    },
    {
      id: 'weight',
      title: 'First visit',
      value: weightOf,
      render: (route) => (weightOf(route) > 0 ? bytesInWords(weightOf(route)) : '–'),
      numeric: true,
      spare: true,
    },
    {
      id: 'from',
      title: 'Known from',
      value: ({ from }) => originInWords(from),
      render: ({ from, values }) => (
        <>
          <bdi>{plain(originInWords(from))}</bdi>
          {values ? <span className="quiet"> values: {values}</span> : null}
        </>
      ),
      spare: true,
    },
  ]
  return (
    <Section title="Routes" about="What a visitor can open directly, and what the host answers it with.">
      <DataTable label="Routes" rows={report.routes} columns={columns} states={states} idOf={idOf} />
    </Section>
  )
}
