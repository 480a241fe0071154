import type { Report } from '../../../src/core/model/report.ts'
import { CopyButton } from '../parts/CopyButton.tsx'
import { Section } from '../parts/Section.tsx'
import { SeverityMark } from '../parts/SeverityMark.tsx'
import { plain, severities, tally } from '../parts/words.ts'

/** Several addresses side by side: which of them this one build fits, and what each other one needs. */
export function Addresses({ report: { sites, findings } }: { readonly report: Report }) {
  return (
    <Section title="Addresses" about="One build, checked at each address it may be served at.">
      <ul className="bare addresses">
        {sites.map(({ address, verdict, blockers, cautions, notes }) => {
          const counts = { blocker: blockers, caution: cautions, note: notes }
          const own = findings.filter(({ sites: at, waived }) => at.includes(address) && !waived)
          return (
            <li key={address} className={`address address-${verdict}`}>
              <h3>{plain(address)}</h3>
              <p className="address-verdict">{verdict === 'held' ? 'Held' : 'Clear: this build fits'}</p>
              <p className="quiet">{severities.map((each) => tally(counts[each], each)).join(', ')}</p>
              <ul className="bare">
                {own.map(
                  ({
                    fingerprint,
                    severity,
                    title,
                    fix: {
                      edits: [edit],
                    },
                  }) => (
                    <li key={fingerprint} className="need">
                      <SeverityMark severity={severity} /> {plain(title)}
                      {edit && edit.moveTo === undefined ? (
                        <p className="need-change">
                          in <bdi>{plain(edit.file)}</bdi>: <code>{plain(edit.write)}</code>{' '}
                          <CopyButton text={edit.write} what={`what ${address} needs`} />
                        </p>
                      ) : null}
                    </li>
                  ),
                )}
              </ul>
            </li>
          )
        })}
      </ul>
    </Section>
  )
}
