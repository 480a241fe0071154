import { UsageError } from '../../model/errors.ts'
import { unknown } from '../../model/unknown.ts'
import type { ReportFormat } from './format.ts'
import { html } from './html.ts'
import { json } from './json.ts'
import { junit } from './junit.ts'
import { lines } from './lines.ts'
import { map } from './map.ts'
import { markdown } from './markdown.ts'
import { sarif } from './sarif.ts'
import { text } from './text.ts'

/** Every format that a report can be written in. */
export const formats: readonly ReportFormat[] = /* @__PURE__ */ registered([
  text,
  json,
  sarif,
  junit,
  lines,
  markdown,
  html,
  map,
])

/** A list of formats that was looked over when it was loaded. @throws {UsageError} when two have one name */
export function registered(list: readonly ReportFormat[]): readonly ReportFormat[] {
  const names = list.map(({ name }) => name)
  const twice = names.find((name, index) => names.indexOf(name) !== index)
  if (twice !== undefined) throw new UsageError(`Two formats have the name ${twice}.`)
  return list
}

/**
 * A format by name.
 * @param known those that are meant, as the formats of one command
 * @throws {UsageError} when there is none of that name; the message names the nearest
 */
export function formatNamed(name: string, known: readonly ReportFormat[] = formats): ReportFormat {
  const found = known.find((format) => format.name === name)
  if (found) return found
  throw new UsageError(
    unknown(
      'format',
      name,
      known.map((format) => format.name),
    ),
  )
}
