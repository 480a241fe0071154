import { useState } from 'react'
import type { Report } from '../../../src/core/model/report.ts'
import { Choice } from '../parts/Choice.tsx'
import { Section } from '../parts/Section.tsx'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'

type Play = NonNullable<Report['rehearsal']>
type Visit = Play['visits'][number]

/** What was seen when the build was served and its routes were opened. */
export function Rehearsal({
  rehearsal: { by, visits, differences },
  pictures,
}: {
  readonly rehearsal: Play
  readonly pictures: Readonly<Record<string, string>>
}) {
  const [filter, setFilter] = useState<'all' | 'troubled'>('all')
  const shown = filter === 'all' ? visits : visits.filter(isTroubled)
  const how = by === 'browser' ? 'in a real browser' : 'by requests'
  return (
    <Section
      title="Rehearsal"
      about={`The folder was served as its host will, and its routes were opened ${how}.`}
    >
      {differences.length > 0 ? (
        <ul className="remarks">
          {differences.map((text) => (
            <li key={text}>{plain(text)}</li>
          ))}
        </ul>
      ) : null}
      <div className="tools">
        <Choice
          label="Which visits"
          value={filter}
          onChange={setFilter}
          options={[
            { id: 'all', label: 'All', count: visits.length },
            { id: 'troubled', label: 'With trouble', count: visits.filter(isTroubled).length },
          ]}
        />
      </div>
      <ul className="bare visits">
        {shown.map((visit) => (
          <VisitCard key={`${visit.route} ${visit.width}`} visit={visit} pictures={pictures} />
        ))}
      </ul>
    </Section>
  )
}

function isTroubled({ errors, complaints, failed, blank, overflows, status }: Visit): boolean {
  const loud = complaints.some(({ kind }) => kind === 'error')
  return errors.length > 0 || loud || failed.length > 0 || blank || overflows || (status ?? 0) >= 400
}

function VisitCard({
  visit,
  pictures,
}: {
  readonly visit: Visit
  readonly pictures: Readonly<Record<string, string>>
}) {
  const { route, width, status, requests, errors, complaints, failed, left, blank, overflows, picture } =
    visit
  const image = picture === null ? undefined : pictures[picture]
  const said = [...errors.map((each) => ({ ...each, kind: 'uncaught' as const })), ...complaints]
  return (
    <li className="visit">
      <h3>
        <bdi>{plain(route)}</bdi> <span className="quiet">{width === null ? '' : `at ${width} px`}</span>
      </h3>
      {image ? <img src={image} alt={`${plain(route)} at ${width} px`} loading="lazy" /> : null}
      <p className="quiet">
        {status === null ? 'no answer' : `answered ${status}`}, {requests.toLocaleString('en')} requests
      </p>
      {blank ? <p className="bad">The page stays blank.</p> : null}
      {overflows ? <p className="bad">The page is wider than the window.</p> : null}
      {said.length > 0 ? (
        <ul className="bare console">
          {said.map(({ kind, text, file, line }, index) => (
            <li key={index}>
              <span className="bad">{kind}</span> {plain(text)}{' '}
              {file ? (
                <span className="quiet">
                  <Where place={{ file, line }} />
                </span>
              ) : null}
            </li>
          ))}
        </ul>
      ) : null}
      {failed.length > 0 ? (
        <ul className="bare">
          {failed.map(({ url, status: answer, reason }) => (
            <li key={url}>
              <span className="bad">{answer ?? 'no answer'}</span> <bdi className="mono">{plain(url)}</bdi>{' '}
              <span className="quiet">{plain(reason)}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {left.length > 0 ? (
        <p className="quiet">
          Requested of other origins:{' '}
          {left.map(({ method, url, outcome }) => `${method} ${plain(url)} (${outcome})`).join('; ')}
        </p>
      ) : null}
    </li>
  )
}
