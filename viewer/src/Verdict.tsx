import { bytesInWords } from '../../src/core/model/text.ts'
import type { Payload } from '../../src/core/report/formats/html.ts'
import { plain, severities, tally } from './parts/words.ts'
import { ThemeChoice } from './ThemeChoice.tsx'

/** What everybody wants to know first: may it ship, and where to. */
export function Verdict({
  payload: { report, made },
  embedded,
}: {
  readonly payload: Payload
  readonly embedded: boolean
}) {
  const Heading = embedded ? 'h2' : 'h1'
  const Frame = embedded ? 'div' : 'header'
  const { verdict, sites, findings, folder, host, delivery } = report
  const standing = findings.filter(({ waived }) => !waived)
  const accepted = findings.length - standing.length
  const counts = severities.map(
    (severity) => [severity, standing.filter((each) => each.severity === severity).length] as const,
  )
  const clear = sites.filter((site) => site.verdict === 'clear').length
  const [site] = sites
  const quiet = [
    `${folder.files.toLocaleString('en')} files, ${bytesInWords(delivery.bytes)}`,
    `host rules “${plain(host.name)}”${host.given ? '' : ' (assumed)'}`,
    `made ${made}`,
  ].join('; ')
  return (
    <Frame className={`verdict verdict-${verdict}`}>
      <div className="verdict-word">
        <Heading className="verdict-heading">{verdict === 'held' ? 'Held' : 'Clear'}</Heading>
        <p>{verdict === 'held' ? 'do not ship this build' : 'may ship'}</p>
      </div>
      <div className="verdict-facts">
        <p className="verdict-site">
          {report.projects
            ? `${report.projects.filter((each) => each.verdict === 'clear').length} of ${report.projects.length} projects clear`
            : sites.length > 1
              ? `${clear} of ${sites.length} addresses clear`
              : site?.given
                ? plain(site.address)
                : `at base path ${plain(site?.base ?? '/')}`}
        </p>
        <p>
          {counts.map(([severity, count]) => tally(count, severity)).join(', ')}
          {accepted > 0 ? `, ${accepted} accepted` : ''}
        </p>
        <p className="verdict-quiet">
          <bdi>{plain(folder.path)}</bdi>
          {`: ${quiet}`}
        </p>
        {report.survey.remarks.map((remark) => (
          <p key={remark} className="verdict-quiet">
            {plain(remark)}
          </p>
        ))}
      </div>
      <ThemeChoice />
    </Frame>
  )
}
