import type { FindingPlace } from '../../../src/core/model/report.ts'
import { plain } from '../parts/words.ts'
import { Row } from './CauseCard.tsx'

const most = 3

/** What the browser requests and what the host answers: the proof. */
export function Exchange({ places }: { readonly places: readonly FindingPlace[] }) {
  const requested = new Map<string, number | null>()
  for (const { request, status } of places) if (request !== null) requested.set(request, status)
  if (requested.size === 0) return null
  return (
    <Row label="Request">
      <ul className="bare exchange">
        {[...requested].slice(0, most).map(([url, status]) => (
          <li key={url}>
            <span className="exchange-url">{plain(url)}</span>
            {status === null ? null : (
              <span className={`status ${status >= 400 ? 'status-bad' : ''}`}>answered {status}</span>
            )}
          </li>
        ))}
        {requested.size > most ? (
          <li className="quiet">and {(requested.size - most).toLocaleString('en')} more</li>
        ) : null}
      </ul>
    </Row>
  )
}
