import { type ReactNode, useMemo } from 'react'
import { Choice } from '../parts/Choice.tsx'
import { useOnPaper } from '../parts/paper.ts'
import { ScrollArea } from '../parts/ScrollArea.tsx'
import { SearchBox } from '../parts/SearchBox.tsx'
import { useNarrow } from '../parts/useNarrow.ts'
import { useView } from '../parts/useView.ts'
import { useWindow } from '../parts/useWindow.ts'
import { matches } from '../parts/words.ts'

export interface DataColumn<T> {
  readonly id: string
  readonly title: string
  readonly render: (row: T) => ReactNode
  /** What it is sorted by, and searched for. */
  readonly value: (row: T) => string | number
  /** Numbers stand at the right. */
  readonly numeric?: boolean
  /** Left out where there is little room. */
  readonly spare?: boolean
}

export interface DataState<T> {
  readonly id: string
  readonly label: string
  readonly holds: (row: T) => boolean
}

/** More rows are drawn only where they are seen. */
const few = 150
const rowHeight = 38
const mostOnPaper = 200

/** Fewer are seen at a glance. */
const enough = 5

/** A table with search, a filter by state, and sorting by any column. */
export function DataTable<T>({
  label,
  rows,
  columns: all,
  states,
  idOf,
}: {
  readonly label: string
  readonly rows: readonly T[]
  readonly columns: readonly DataColumn<T>[]
  readonly states: readonly DataState<T>[]
  readonly idOf: (row: T, index: number) => string
}) {
  const narrow = useNarrow(760)
  const onPaper = useOnPaper()
  const columns = useMemo(() => (narrow ? all.filter(({ spare }) => !spare) : all), [all, narrow])
  const [search, setSearch] = useView('search', '')
  const [state, setState] = useView('show', 'all')
  const [written, setWritten] = useView('sort', '')
  const sort = sortFrom(written, all)
  const items = useMemo(() => rows.map((row, index) => ({ id: idOf(row, index), row })), [rows, idOf])
  const filter = states.find(({ id }) => id === state)
  const shown = useMemo(() => {
    const kept = items.filter(
      ({ row }) =>
        (!filter || filter.holds(row)) &&
        (search === '' || matches(all.map(({ value }) => value(row)).join(' '), search)),
    )
    return sort ? sorted(kept, all, sort) : kept
  }, [items, all, filter, search, sort?.column, sort?.falling])
  const options = [
    { id: 'all', label: 'All', count: rows.length },
    ...states.map(({ id, label: name, holds }) => ({ id, label: name, count: rows.filter(holds).length })),
  ].filter(({ id, count }) => id === 'all' || count > 0)
  const many = shown.length > few && !onPaper
  const drawn = onPaper ? shown.slice(0, mostOnPaper) : shown
  const [frame, { from, to, above, below }] = useWindow(drawn.length, rowHeight, !many)
  const turn = (column: string): void =>
    setWritten(`${sort?.column === column && !sort.falling ? '-' : ''}${column}`)
  return (
    <>
      <div className="tools">
        {rows.length > enough ? (
          <SearchBox label={`Search ${label.toLowerCase()}`} value={search} onChange={setSearch} />
        ) : null}
        {options.length > 2 || (options[1] && options[1].count < rows.length) ? (
          <Choice
            label={`Which ${label.toLowerCase()}`}
            options={options}
            value={state}
            onChange={setState}
          />
        ) : null}
      </div>
      <p className="unseen" role="status">
        {shown.length} of {rows.length} shown
      </p>
      <ScrollArea className={many ? 'table-frame table-many' : 'table-frame'} frame={frame} label={label}>
        <table
          className="table"
          aria-label={label}
          aria-rowcount={drawn.length + 1}
          style={{ marginTop: above, marginBottom: below }}
        >
          <thead>
            <tr>
              {columns.map(({ id, title, numeric }) => (
                <th
                  key={id}
                  scope="col"
                  aria-sort={directionOf(sort, id)}
                  {...(numeric ? { className: 'numeric' } : {})}
                >
                  <button type="button" onClick={() => turn(id)}>
                    {title}
                    <span aria-hidden="true" className="sort">
                      {sort?.column === id ? (sort.falling ? '▼' : '▲') : ''}
                    </span>
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {drawn.slice(from, to).map(({ id, row }, index) => (
              <tr key={id} aria-rowindex={from + index + 2}>
                {columns.map(({ id: column, render, numeric }, place) => {
                  const Cell = place === 0 ? 'th' : 'td'
                  return (
                    <Cell
                      key={column}
                      {...(place === 0 ? { scope: 'row' } : {})}
                      {...(numeric ? { className: 'numeric' } : {})}
                    >
                      {render(row)}
                    </Cell>
                  )
                })}
              </tr>
            ))}
          </tbody>
        </table>
        {drawn.length === 0 ? <p className="nothing">Nothing matches.</p> : null}
      </ScrollArea>
      {drawn.length < shown.length ? (
        <p className="quiet">and {(shown.length - drawn.length).toLocaleString('en')} more</p>
      ) : null}
    </>
  )
}

/** By which column, and which way. */
interface Sort {
  readonly column: string
  readonly falling: boolean
}

/** As the address has it: the column, behind a minus where it falls. */
function sortFrom(text: string, columns: readonly { readonly id: string }[]): Sort | null {
  const column = text.replace(/^-/, '')
  return columns.some(({ id }) => id === column) ? { column, falling: text.startsWith('-') } : null
}

function directionOf(sort: Sort | null, column: string): 'ascending' | 'descending' | 'none' {
  if (sort?.column !== column) return 'none'
  return sort.falling ? 'descending' : 'ascending'
}

function sorted<T>(
  items: readonly { readonly id: string; readonly row: T }[],
  columns: readonly DataColumn<T>[],
  { column, falling }: Sort,
): { id: string; row: T }[] {
  const by = columns.find(({ id }) => id === column)
  if (!by) return [...items]
  const sign = falling ? -1 : 1
  return [...items].sort((a, b) => {
    const [one, other] = [by.value(a.row), by.value(b.row)]
    const order =
      typeof one === 'number' && typeof other === 'number'
        ? one - other
        : collator.compare(String(one), String(other))
    return sign * order
  })
}

const collator = new Intl.Collator('en', { numeric: true })
