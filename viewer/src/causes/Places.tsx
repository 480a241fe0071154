import type { Finding, FindingPlace } from '../../../src/core/model/report.ts'
import { useOnPaper } from '../parts/paper.ts'
import { ScrollArea } from '../parts/ScrollArea.tsx'
import { useWindow } from '../parts/useWindow.ts'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'
import { Row } from './CauseCard.tsx'
import { Excerpt } from './Excerpt.tsx'

/** More are drawn only where they are seen. */
const few = 12
const rowHeight = 58
const mostOnPaper = 40

/** All places of a cause in the build, each with the source it comes from where that is known. */
export function Places({ finding: { places, count, source } }: { readonly finding: Finding }) {
  const onPaper = useOnPaper()
  const located = places.filter(({ line, source: own }) => line !== null || own !== null)
  const all = located.length > 0 ? located : places
  const shown = onPaper ? all.slice(0, mostOnPaper) : all
  if (shown.length === 0) return null
  const files = new Set(all.map(({ file }) => file)).size
  const known = source ? `${source.file}:${source.line}` : ''
  return (
    <Row label="In the build">
      {all.length > few ? (
        <p className="quiet">
          {count.toLocaleString('en')} places in {files.toLocaleString('en')} {files === 1 ? 'file' : 'files'}
          {count > shown.length ? `; ${shown.length.toLocaleString('en')} of them here` : ''}
        </p>
      ) : null}
      {shown.length > few && !onPaper ? (
        <ManyPlaces places={shown} known={known} />
      ) : (
        <ul className="bare places">
          {shown.map((place, index) => (
            <li key={index} className="place">
              <PlaceLines place={place} known={known} />
            </li>
          ))}
        </ul>
      )}
    </Row>
  )
}

function ManyPlaces({ places, known }: { readonly places: readonly FindingPlace[]; readonly known: string }) {
  const [frame, { from, to, above, below }] = useWindow(places.length, rowHeight, false)
  return (
    <ScrollArea className="places-many" frame={frame} label="Places in the build">
      <ul className="bare" style={{ paddingTop: above, paddingBottom: below }}>
        {places.slice(from, to).map((place, index) => (
          <li
            key={from + index}
            className="place"
            aria-setsize={places.length}
            aria-posinset={from + index + 1}
          >
            <PlaceLines place={place} known={known} />
          </li>
        ))}
      </ul>
    </ScrollArea>
  )
}

function PlaceLines({ place, known }: { readonly place: FindingPlace; readonly known: string }) {
  const { source } = place
  const own = source && `${source.file}:${source.line}` !== known ? source : null
  return (
    <>
      <span className="place-head">
        <Where place={place} />
        {own ? (
          <span className="quiet">
            from <Where place={{ file: own.file, line: own.line }} />
          </span>
        ) : null}
      </span>
      {place.excerpt === null ? (
        place.request === null ? null : (
          <code className="excerpt">{plain(place.request)}</code>
        )
      ) : (
        <Excerpt place={place} />
      )}
    </>
  )
}
