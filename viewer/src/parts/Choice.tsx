import { ToggleButton, ToggleButtonGroup } from 'react-aria-components'

export interface Option<Id extends string> {
  readonly id: Id
  readonly label: string
  readonly count?: number
}

/** One of a few: a filter, or a way to see. */
export function Choice<Id extends string>({
  label,
  options,
  value,
  onChange,
}: {
  readonly label: string
  readonly options: readonly Option<Id>[]
  readonly value: Id
  readonly onChange: (id: Id) => void
}) {
  return (
    <ToggleButtonGroup
      className="choice"
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[value]}
      onSelectionChange={(keys) => {
        for (const key of keys) onChange(key as Id)
      }}
    >
      {options.map(({ id, label: name, count }) => (
        <ToggleButton key={id} id={id}>
          {name}
          {count === undefined ? null : <span className="count">{count.toLocaleString('en')}</span>}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  )
}
