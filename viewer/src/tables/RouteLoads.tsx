import { Button, Dialog, DialogTrigger, Heading, Modal, ModalOverlay } from 'react-aria-components'
import type { Delivery, Report } from '../../../src/core/model/report.ts'
import { bytesInWords, counted } from '../../../src/core/model/text.ts'
import { downloaded } from '../../../src/core/release/weight.ts'
import { ScrollArea } from '../parts/ScrollArea.tsx'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'
import { Status } from './Status.tsx'

type Route = Report['routes'][number]
type Visit = Delivery['firstVisit'][number]

/** The path of a route, which opens what a first visit of it loads, where that is known. */
export function RouteLoads({ route, visit }: { readonly route: Route; readonly visit: Visit | undefined }) {
  const path = <bdi className="mono">{plain(route.path)}</bdi>
  if (!visit?.loads) return path
  return (
    <DialogTrigger>
      <Button className="opens">{path}</Button>
      <ModalOverlay className="overlay" isDismissable>
        <Modal className="sheet">
          <Dialog className="dialog">
            {({ close }) => (
              <>
                <div className="dialog-head">
                  <Heading slot="title" level={2}>
                    What <bdi className="mono">{plain(route.path)}</bdi> loads
                  </Heading>
                  <Button className="copy" onPress={close}>
                    Close
                  </Button>
                </div>
                <Loads route={route} visit={visit} loads={visit.loads ?? []} />
              </>
            )}
          </Dialog>
        </Modal>
      </ModalOverlay>
    </DialogTrigger>
  )
}

function Loads({
  route: { entryFile, status, answeredBy },
  visit,
  loads,
}: {
  readonly route: Route
  readonly visit: Visit
  readonly loads: NonNullable<Visit['loads']>
}) {
  const failing = loads.filter(({ fails }) => fails).length
  return (
    <>
      <p>
        Answered {status} by {plain(answeredBy)} with <bdi className="mono">{plain(entryFile ?? '–')}</bdi>; a
        first visit downloads {bytesInWords(downloaded(visit))}. {counted(loads.length, 'request')}
        {failing > 0
          ? `, of which ${failing} ${failing === 1 ? 'does' : 'do'} not arrive`
          : ', and all arrive'}
        .
      </p>
      <ScrollArea className="table-frame" label="Requests">
        <table className="table" aria-label="Requests">
          <thead>
            <tr>
              <th scope="col">Request</th>
              <th scope="col" className="numeric">
                Status
              </th>
              <th scope="col" className="numeric">
                Size
              </th>
              <th scope="col">Asked at</th>
            </tr>
          </thead>
          <tbody>
            {loads.map(({ request, status: code, fails, bytes, at }) => (
              <tr key={request}>
                <th scope="row">
                  <bdi className="mono">{plain(request)}</bdi>
                </th>
                <td className="numeric">
                  <Status status={code} bad={fails} />
                </td>
                <td className="numeric">{bytes === null ? '–' : bytesInWords(bytes)}</td>
                <td>{at ? <Where place={at} /> : '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollArea>
    </>
  )
}
