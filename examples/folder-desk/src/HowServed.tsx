import { useState } from 'react'
import { FieldError, Input, Label, Radio, RadioGroup, Text, TextField } from 'react-aria-components'
import { presets } from '../../../src/core/host/presets.ts'
import type { Serving } from './messages.ts'

/** Where and how the folder will be served. The verdict follows at once. */
export function HowServed({
  serving,
  refused,
  onChange,
}: {
  readonly serving: Serving
  readonly refused: string | null
  readonly onChange: (serving: Serving) => void
}) {
  const [routes, setRoutes] = useState('')
  return (
    <div className="how">
      <TextField
        className="field"
        value={serving.site}
        onChange={(site) => onChange({ ...serving, site })}
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
          onChange({ ...serving, routes: text.split(/[\s,]+/).filter((each) => each !== '') })
        }}
      >
        <Label>Routes visitors open</Label>
        <Input placeholder="/tickets/new /sailings/42" />
        <Text slot="description" className="quiet">
          Beside those that pages and sources name.
        </Text>
      </TextField>
      <RadioGroup className="hosts" value={serving.host} onChange={(host) => onChange({ ...serving, host })}>
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
