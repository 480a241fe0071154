import { useState } from 'react'
import type { Delivery, Report } from '../../../src/core/model/report.ts'
import { bytesInWords } from '../../../src/core/model/text.ts'
import { Choice, type Option } from '../parts/Choice.tsx'
import { Section } from '../parts/Section.tsx'
import { plain } from '../parts/words.ts'
import { type DataColumn, DataTable } from '../tables/DataTable.tsx'
import { type Measure, measured } from './measure.ts'
import { VisitChart } from './VisitChart.tsx'

type Visit = Delivery['firstVisit'][number]

const idOf = ({ entryFile }: Visit): string => entryFile

/** What opening each route downloads before anybody does anything, as a plot and as a table. */
export function Weight({ report: { delivery } }: { readonly report: Report }) {
  const compressed = delivery.firstVisit.some(({ gzip }) => gzip !== null)
  const [measure, setMeasure] = useState<Measure>(compressed ? 'gzip' : 'bytes')
  const options: Option<Measure>[] = [
    { id: 'gzip', label: 'gzip' },
    { id: 'brotli', label: 'Brotli' },
    { id: 'bytes', label: 'uncompressed' },
  ]
  const columns: DataColumn<Visit>[] = [
    {
      id: 'route',
      title: 'Route',
      value: ({ route }) => route,
      render: ({ route }) => <bdi className="mono">{plain(route)}</bdi>,
    },
    {
      id: 'entry',
      title: 'Entry file',
      value: ({ entryFile }) => entryFile,
      render: ({ entryFile }) => <bdi className="mono">{plain(entryFile)}</bdi>,
      spare: true,
    },
    { id: 'files', title: 'Files', value: ({ files }) => files, render: ({ files }) => files, numeric: true },
    ...(compressed ? [size('gzip', 'gzip'), size('brotli', 'Brotli')] : []),
    size('bytes', 'Uncompressed'),
  ]
  return (
    <Section
      title="Weight"
      about="What opening a route downloads before anybody does anything: its page, scripts with their static imports, styles, fonts, and pictures that do not wait."
    >
      {compressed ? (
        <Choice label="How it is measured" options={options} value={measure} onChange={setMeasure} />
      ) : null}
      <VisitChart visits={delivery.firstVisit} measure={measure} />
      <h3>Every first visit</h3>
      <DataTable label="First visits" rows={delivery.firstVisit} columns={columns} states={[]} idOf={idOf} />
      <h3>Largest files</h3>
      <ol className="bare largest">
        {delivery.largest.map(({ file, bytes }) => (
          <li key={file}>
            <span className="numeric">{bytesInWords(bytes)}</span> <bdi className="mono">{plain(file)}</bdi>
          </li>
        ))}
      </ol>
    </Section>
  )
}

function size(measure: Measure, title: string): DataColumn<Visit> {
  return {
    id: measure,
    title,
    value: (visit) => measured(visit, measure),
    render: (visit) => bytesInWords(measured(visit, measure)),
    numeric: true,
    spare: measure === 'brotli',
  }
}
