import { GridList, GridListItem, ListLayout, Virtualizer } from 'react-aria-components'
import type { Finding, FindingPlace } from '../../../src/core/model/report.ts'
import { useOnPaper } from '../parts/paper.ts'
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
  const sources = source ? `${source.file}:${source.line}` : ''
  return (
    <Row label="In the build">
      {all.length > few ? (
        <p className="quiet">
          {count.toLocaleString('en')} places in {files.toLocaleString('en')} {files === 1 ? 'file' : 'files'}
          {count > shown.length ? `; ${shown.length.toLocaleString('en')} of them here` : ''}
        </p>
      ) : null}
      {shown.length > few && !onPaper ? (
        <Virtualizer layout={ListLayout} layoutOptions={{ rowHeight }}>
          <GridList aria-label="Places in the build" className="places places-many" items={shown.map(withId)}>
            {({ id, place }) => (
              <GridListItem id={id} textValue={`${place.file} ${place.line ?? ''}`} className="place">
                <PlaceLines place={place} known={sources} />
              </GridListItem>
            )}
          </GridList>
        </Virtualizer>
      ) : (
        <ul className="bare places">
          {shown.map(withId).map(({ id, place }) => (
            <li key={id} className="place">
              <PlaceLines place={place} known={sources} />
            </li>
          ))}
        </ul>
      )}
    </Row>
  )
}

function withId(place: FindingPlace, id: number): { id: number; place: FindingPlace } {
  return { id, place }
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
