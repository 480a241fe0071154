import type { Report } from '../../../src/core/model/report.ts'
import { bytesInWords } from '../../../src/core/model/text.ts'
import { Section } from '../parts/Section.tsx'
import { plain } from '../parts/words.ts'
import { type DataColumn, DataTable } from './DataTable.tsx'
import { Status } from './Status.tsx'

type Asset = Report['assets']['list'][number]

const states = [
  { id: 'failing', label: 'Failing', holds: ({ fails }: Asset) => fails },
  { id: 'arriving', label: 'Arriving', holds: ({ fails }: Asset) => !fails },
]
const idOf = ({ path }: Asset): string => path

const columns: DataColumn<Asset>[] = [
  {
    id: 'path',
    title: 'Request',
    value: ({ path }) => path,
    render: ({ path }) => <bdi className="mono">{plain(path)}</bdi>,
  },
  {
    id: 'status',
    title: 'Status',
    value: ({ status }) => status,
    render: ({ status, fails }) => <Status status={status} bad={fails} />,
    numeric: true,
  },
  {
    id: 'answered',
    title: 'Answered by',
    value: ({ answeredBy, file }) => file ?? answeredBy,
    render: ({ answeredBy, file }) => <bdi>{plain(file ?? answeredBy)}</bdi>,
    spare: true,
  },
  {
    id: 'bytes',
    title: 'Size',
    value: ({ bytes }) => bytes ?? 0,
    render: ({ bytes }) => (bytes === null ? '–' : bytesInWords(bytes)),
    numeric: true,
  },
  {
    id: 'places',
    title: 'Places',
    value: ({ places }) => places,
    render: ({ places }) => places.toLocaleString('en'),
    numeric: true,
    spare: true,
  },
]

/** What the build asks its own site for, and what the host answers. */
export function Assets({ report: { assets } }: { readonly report: Report }) {
  const { references, requests, missing, list } = assets
  const rest = requests - list.length
  const reported = `${references.toLocaleString('en')} places request ${requests.toLocaleString('en')} files; ${missing.toLocaleString('en')} do not arrive.`
  return (
    <Section
      title="Assets"
      about={rest > 0 ? `${reported} ${rest.toLocaleString('en')} that arrive are not listed.` : reported}
    >
      <DataTable label="Assets" rows={list} columns={columns} states={states} idOf={idOf} />
    </Section>
  )
}
