import { Button, Disclosure, DisclosurePanel, Heading } from 'react-aria-components'
import type { Explanation } from '../../../src/core/checks/explanation.ts'
import type { Finding } from '../../../src/core/model/report.ts'
import { useOnPaper } from '../parts/paper.ts'
import { SeverityMark } from '../parts/SeverityMark.tsx'
import { plain } from '../parts/words.ts'
import { Exchange } from './Exchange.tsx'
import { Fix } from './Fix.tsx'
import { Places } from './Places.tsx'
import { SourceLines } from './SourceLines.tsx'

/** One cause: what a visitor sees, why, the proof, where, and what to change. */
export function CauseCard({
  finding,
  explanation,
  severalSites,
  open,
}: {
  readonly finding: Finding
  readonly explanation: Explanation | null
  readonly severalSites: boolean
  readonly open: boolean
}) {
  const onPaper = useOnPaper()
  const { severity, title, code, count, impact, cause, waived, waiver, sites, seen } = finding
  return (
    <Disclosure
      className={`cause cause-${severity}`}
      defaultExpanded={open || onPaper}
      id={finding.fingerprint}
    >
      <Heading level={3} className="cause-head">
        <Button slot="trigger" className="cause-trigger">
          <SeverityMark severity={severity} />
          <span className="cause-title">{plain(title)}</span>
          <span className="cause-code">{code}</span>
          <span className="cause-count">
            {count.toLocaleString('en')} {count === 1 ? 'place' : 'places'}
          </span>
        </Button>
      </Heading>
      <p className="cause-impact">{plain(impact)}</p>
      {waived ? (
        <p className="cause-waived">
          Accepted{waiver?.until ? ` until ${waiver.until}` : ''}: {plain(waiver?.reason ?? '')}
        </p>
      ) : null}
      <DisclosurePanel className="cause-panel">
        {severalSites ? (
          <Row label="At">
            <ul className="bare">
              {sites.map((site) => (
                <li key={site}>{plain(site)}</li>
              ))}
            </ul>
          </Row>
        ) : null}
        <Row label="Because">{plain(cause)}</Row>
        <Exchange places={finding.places} />
        {finding.source ? (
          <Row label="In the source">
            <SourceLines source={finding.source} />
          </Row>
        ) : null}
        <Row label="Fix">
          <Fix fix={finding.fix} />
        </Row>
        <Places finding={finding} />
        {seen.includes('rehearsal') ? (
          <Row label="Seen">
            {seen.includes('check') ? 'by looking, and when it was run' : 'when it was run'}
          </Row>
        ) : null}
        {explanation ? (
          <Row label="More">
            <p>{plain(explanation.meaning)}</p>
            {explanation.example ? <p className="example">Example: {plain(explanation.example)}</p> : null}
          </Row>
        ) : null}
      </DisclosurePanel>
    </Disclosure>
  )
}

export function Row({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <div className="row">
      <h4>{label}</h4>
      <div className="row-content">{children}</div>
    </div>
  )
}
