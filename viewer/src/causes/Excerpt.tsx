import type { FindingPlace } from '../../../src/core/model/report.ts'
import { plain } from '../parts/words.ts'

/** A piece of a built file, with the part that is meant marked. */
export function Excerpt({ place: { excerpt, highlight } }: { readonly place: FindingPlace }) {
  if (excerpt === null) return null
  const start = highlight?.start ?? 0
  const end = start + (highlight?.length ?? 0)
  return (
    <code className="excerpt">
      {plain(excerpt.slice(0, start))}
      {end > start ? <mark>{plain(excerpt.slice(start, end))}</mark> : null}
      {plain(excerpt.slice(end))}
    </code>
  )
}
