import { Button, Input, Label, SearchField } from 'react-aria-components'

export function SearchBox({
  label,
  value,
  onChange,
}: {
  readonly label: string
  readonly value: string
  readonly onChange: (value: string) => void
}) {
  return (
    <SearchField className="search" value={value} onChange={onChange}>
      <Label>{label}</Label>
      <div className="search-row">
        <Input />
        {value === '' ? null : <Button aria-label="Clear the search">Clear</Button>}
      </div>
    </SearchField>
  )
}
