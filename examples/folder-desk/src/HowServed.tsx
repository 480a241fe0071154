import { useState } from 'react'
import { FieldError, Input, Label, Radio, RadioGroup, Text, TextField } from 'react-aria-components'
import { presets } from '../../../src/core/host/presets.ts'
import type { Judging } from './messages.ts'

/** Where and how the folder will be served. The verdict follows at once. */
export function HowServed({
  judging,
  refused,
  onChange,
}: {
  readonly judging: Judging
  readonly refused: string | null
  readonly onChange: (judging: Judging) => void
}) {
  const [routes, setRoutes] = useState('')
  return (
    <div className="how">
      <TextField
        className="field"
        value={judging.site}
        onChange={(site) => onChange({ ...judging, site })}
        isInvalid={refused !== null}
        type="url"
      >
        <Label>Site address</Label>
        <Input placeholder="https://skerryline.example/crossings/" />
        <Text slot="description" className="quiet">
          Without one, the base path that the build expects.
        </Text>
        <FieldError className="bad">{refused}</FieldError>
      </TextField>
      <TextField
        className="field"
        value={routes}
        onChange={(text) => {
          setRoutes(text)
          onChange({ ...judging, routes: text.split(/[\s,]+/).filter((each) => each !== '') })
        }}
      >
        <Label>Routes visitors open</Label>
        <Input placeholder="/tickets/new /sailings/42" />
        <Text slot="description" className="quiet">
          Beside those that pages and sources name.
        </Text>
      </TextField>
      <RadioGroup className="hosts" value={judging.host} onChange={(host) => onChange({ ...judging, host })}>
        <Label>How the host answers</Label>
        {presets.map(({ name, about }) => (
          <Radio key={name} value={name} className="host">
            <span className="host-name">{name}</span>
            <span className="quiet">{about}</span>
          </Radio>
        ))}
      </RadioGroup>
    </div>
  )
}
