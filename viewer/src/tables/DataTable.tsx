import { type ReactNode, useMemo, useState } from 'react'
import {
  Cell,
  Column,
  ResizableTableContainer,
  Row,
  type SortDescriptor,
  Table,
  TableBody,
  TableHeader,
  TableLayout,
  Virtualizer,
} from 'react-aria-components'
import { Choice } from '../parts/Choice.tsx'
import { useOnPaper } from '../parts/paper.ts'
import { SearchBox } from '../parts/SearchBox.tsx'
import { useNarrow } from '../parts/useNarrow.ts'
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
  const [search, setSearch] = useState('')
  const [state, setState] = useState('all')
  const [sort, setSort] = useState<SortDescriptor | null>(null)
  const items = useMemo(() => rows.map((row, index) => ({ id: idOf(row, index), row })), [rows, idOf])
  const filter = states.find(({ id }) => id === state)
  const shown = useMemo(() => {
    const kept = items.filter(
      ({ row }) =>
        (!filter || filter.holds(row)) &&
        (search === '' || matches(all.map(({ value }) => value(row)).join(' '), search)),
    )
    return sort ? sorted(kept, all, sort) : kept
  }, [items, all, filter, search, sort])
  const options = [
    { id: 'all', label: 'All', count: rows.length },
    ...states.map(({ id, label: name, holds }) => ({ id, label: name, count: rows.filter(holds).length })),
  ].filter(({ id, count }) => id === 'all' || count > 0)
  const many = shown.length > few && !onPaper
  const drawn = onPaper ? shown.slice(0, mostOnPaper) : shown
  const table = (
    <Table
      aria-label={label}
      className={many ? 'table table-many' : 'table'}
      {...(sort ? { sortDescriptor: sort } : {})}
      onSortChange={setSort}
    >
      <TableHeader>
        {columns.map(({ id, title, numeric }, index) => (
          <Column
            key={id}
            id={id}
            allowsSorting
            isRowHeader={index === 0}
            {...(many ? widthOf(index === 0, numeric) : {})}
            {...(numeric ? { className: 'numeric' } : {})}
          >
            {({ sortDirection }) => (
              <>
                {title}
                <span aria-hidden="true" className="sort">
                  {sortDirection === 'ascending' ? '▲' : sortDirection === 'descending' ? '▼' : ''}
                </span>
              </>
            )}
          </Column>
        ))}
      </TableHeader>
      <TableBody items={drawn} renderEmptyState={() => <p className="nothing">Nothing matches.</p>}>
        {({ id, row }) => (
          <Row id={id}>
            {columns.map(({ id: column, render, numeric, value }) => (
              <Cell
                key={column}
                textValue={String(value(row))}
                {...(numeric ? { className: 'numeric' } : {})}
              >
                {render(row)}
              </Cell>
            ))}
          </Row>
        )}
      </TableBody>
    </Table>
  )
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
      <div className="table-frame">
        {many ? (
          <ResizableTableContainer>
            <Virtualizer layout={TableLayout} layoutOptions={{ rowHeight, headingHeight: 36 }}>
              {table}
            </Virtualizer>
          </ResizableTableContainer>
        ) : (
          table
        )}
      </div>
      {drawn.length < shown.length ? (
        <p className="quiet">and {(shown.length - drawn.length).toLocaleString('en')} more</p>
      ) : null}
    </>
  )
}

/** Rows that are drawn where they are seen can't tell how wide they would be. */
function widthOf(first: boolean, numeric = false): { width: `${number}fr`; minWidth: number } {
  if (first) return { width: '4fr', minWidth: 170 }
  return numeric ? { width: '1fr', minWidth: 84 } : { width: '2fr', minWidth: 96 }
}

function sorted<T>(
  items: readonly { readonly id: string; readonly row: T }[],
  columns: readonly DataColumn<T>[],
  { column, direction }: SortDescriptor,
): { id: string; row: T }[] {
  const by = columns.find(({ id }) => id === column)
  if (!by) return [...items]
  const sign = direction === 'descending' ? -1 : 1
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
