import { Button, Disclosure, DisclosurePanel } from 'react-aria-components'
import type { Finding, FindingPlace } from '../../../src/core/model/report.ts'
import { counted, groupedBy } from '../../../src/core/model/text.ts'
import { useOnPaper } from '../parts/paper.ts'
import { ScrollArea } from '../parts/ScrollArea.tsx'
import { shortenedApart } from '../parts/shortened.ts'
import { useNarrow } from '../parts/useNarrow.ts'
import { useWindow } from '../parts/useWindow.ts'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'
import { Row } from './CauseCard.tsx'
import { Excerpt } from './Excerpt.tsx'

/** More are drawn only where they are seen. */
const few = 12

/** More, or in more than a few files, are a tree by directory and file. */
const mostListed = 100
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
      {(files > few || shown.length > mostListed) && !onPaper ? (
        <PlaceTree places={shown} known={known} />
      ) : (
        <PlaceList places={shown} known={known} />
      )}
    </Row>
  )
}

interface Listed {
  readonly places: readonly FindingPlace[]
  readonly known: string
}

/** Directories that open to their files, and files that open to their places; what is alone is open. */
function PlaceTree({ places, known }: Listed) {
  const directories = [...groupedBy(places, ({ file }) => file.slice(0, file.lastIndexOf('/') + 1))]
  if (directories.length === 1) return <FileNodes places={places} known={known} isWhole />
  return (
    <NodeList
      nodes={directories.map(([directory, own]) => ({
        id: directory,
        name: directory || 'at the top',
        about: `${counted(new Set(own.map(({ file }) => file)).size, 'file')}, ${counted(own.length, 'place')}`,
        content: () => <FileNodes places={own} known={known} />,
      }))}
    />
  )
}

function FileNodes({ places, known, isWhole = false }: Listed & { readonly isWhole?: boolean }) {
  const files = [...groupedBy(places, ({ file }) => file)]
  if (files.length === 1) return <PlaceList places={places} known={known} />
  return (
    <NodeList
      nodes={files.map(([file, own]) => ({
        id: file,
        name: isWhole ? file : file.slice(file.lastIndexOf('/') + 1),
        about: counted(own.length, 'place'),
        content: () => <PlaceList places={own} known={known} />,
      }))}
    />
  )
}

interface Node {
  readonly id: string
  readonly name: string
  readonly about: string
  readonly content: () => React.ReactNode
}

/** Nodes of one level; a search finds the others. */
const mostNodes = 200

/** What names have room for beside a small screen's edges. */
const narrowName = 30

function NodeList({ nodes }: { readonly nodes: readonly Node[] }) {
  const narrow = useNarrow(760)
  const shown = nodes.slice(0, mostNodes)
  const names = shown.map(({ name }) => plain(name))
  const short = narrow ? shortenedApart(names, narrowName) : names
  return (
    <ul className="bare nodes">
      {shown.map(({ id, about, content }, index) => (
        <li key={id}>
          <Disclosure className="node">
            {({ isExpanded }) => (
              <>
                <Button slot="trigger" className="node-trigger">
                  <bdi className="mono">{short[index]}</bdi> <span className="quiet">{about}</span>
                </Button>
                <DisclosurePanel className="node-panel">{isExpanded ? content() : null}</DisclosurePanel>
              </>
            )}
          </Disclosure>
        </li>
      ))}
      {nodes.length > mostNodes ? (
        <li className="quiet">and {(nodes.length - mostNodes).toLocaleString('en')} more</li>
      ) : null}
    </ul>
  )
}

function PlaceList({ places, known }: Listed) {
  const onPaper = useOnPaper()
  if (places.length > few && !onPaper) return <ManyPlaces places={places} known={known} />
  return (
    <ul className="bare places">
      {places.map((place, index) => (
        <li key={index} className="place">
          <PlaceLines place={place} known={known} />
        </li>
      ))}
    </ul>
  )
}

function ManyPlaces({ places, known }: Listed) {
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
