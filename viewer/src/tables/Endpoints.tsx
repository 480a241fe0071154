import type { EndpointReport, Report } from '../../../src/core/model/report.ts'
import { Section } from '../parts/Section.tsx'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'
import { type DataColumn, DataTable } from './DataTable.tsx'

/** One word for one thing, in the filter and in the cells. */
const words: Readonly<Record<EndpointReport['certainty'], string>> = {
  called: 'called',
  likely: 'likely called',
  harmless: 'let pass',
}
const states = (['called', 'likely', 'harmless'] as const).map((id) => ({
  id,
  label: words[id].charAt(0).toUpperCase() + words[id].slice(1),
  holds: ({ certainty }: EndpointReport) => certainty === id,
}))
const idOf = ({ url }: EndpointReport, index: number): string => `${index} ${url}`

/** The addresses the build calls, or only mentions, each with why it was judged so. */
export function Endpoints({ report }: { readonly report: Report }) {
  const answers = new Map(report.reach.map((each) => [each.url, each]))
  const columns: DataColumn<EndpointReport>[] = [
    {
      id: 'url',
      title: 'Address',
      value: ({ url }) => url,
      render: ({ url }) => <bdi className="mono">{plain(url)}</bdi>,
    },
    {
      id: 'certainty',
      title: 'Called',
      value: ({ certainty }) => words[certainty],
      render: ({ certainty, flow }) => (
        <>
          {words[certainty]}
          {flow ? <span className="quiet"> {plain(flow)}</span> : null}
        </>
      ),
    },
    { id: 'kind', title: 'Leads to', value: ({ kind }) => kind, render: ({ kind }) => kind, spare: true },
    {
      id: 'judgement',
      title: 'Why',
      value: ({ judgement }) => judgement,
      render: ({ judgement }) => plain(judgement),
      spare: true,
    },
    {
      id: 'place',
      title: 'Where',
      value: ({ places }) => places[0]?.file ?? '',
      render: ({ places: [first], variable }) => (
        <>
          {first ? <Where place={{ file: first.file, line: first.line }} /> : '–'}
          {variable ? <span className="quiet"> by {plain(variable)}</span> : null}
        </>
      ),
      spare: true,
    },
    ...(report.reach.length > 0
      ? [
          {
            id: 'reach',
            title: 'When requested',
            value: ({ url }: EndpointReport) => answers.get(url)?.outcome ?? '',
            render: ({ url }: EndpointReport) => answers.get(url)?.outcome ?? '–',
          },
        ]
      : []),
  ]
  return (
    <Section
      title="Endpoints"
      about="Addresses of other services that stand in the build, and whether the page calls them."
    >
      {report.endpoints.length === 0 ? (
        <p className="nothing">No address of another service stands in the build.</p>
      ) : (
        <DataTable label="Endpoints" rows={report.endpoints} columns={columns} states={states} idOf={idOf} />
      )}
    </Section>
  )
}
