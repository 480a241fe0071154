import type { Report, SurveyReport } from '../../../src/core/model/report.ts'
import { Section } from '../parts/Section.tsx'
import { Where } from '../parts/Where.tsx'
import { originInWords, plain } from '../parts/words.ts'

type AnyReading = {
  readonly value: string | readonly string[] | null
  readonly from: NonNullable<SurveyReport['project']>['from']
  readonly certainty: string
  readonly expression?: string | undefined
  readonly dependsOn?: string | undefined
}

/** What was read of the project, each value with where it was read and how sure that is. */
export function Survey({ survey, report }: { readonly survey: SurveyReport; readonly report: Report }) {
  const rows = readings(survey)
  return (
    <Section title="Survey" about="What the project says of itself. Its code was read, never run.">
      {survey.remarks.length > 0 || report.unread.length > 0 ? (
        <ul className="remarks">
          {survey.remarks.map((remark) => (
            <li key={remark}>{plain(remark)}</li>
          ))}
          {report.unread.map(({ file, reason }) => (
            <li key={file}>Not read: {plain(reason)}</li>
          ))}
        </ul>
      ) : null}
      {rows.length === 0 ? <p className="nothing">There is no project here, only a folder.</p> : null}
      <dl className="readings">
        {rows.map(([name, { value, from, certainty, expression, dependsOn }]) => (
          <div key={name} className="reading">
            <dt>{name}</dt>
            <dd>
              <bdi className="mono">{inWords(value, expression)}</bdi>
              <span className="quiet reading-from">
                {certainty}, <bdi>{plain(originInWords(from))}</bdi>
                {dependsOn === undefined ? null : `, unless ${plain(dependsOn)} is set`}
              </span>
            </dd>
          </div>
        ))}
      </dl>
      {survey.addresses.length > 0 ? (
        <>
          <h3>Addresses that are named</h3>
          <ul className="bare">
            {survey.addresses.map(({ value, from, kind }) => (
              <li key={`${kind} ${value}`}>
                <span className="mono">{plain(value)}</span>{' '}
                <span className="quiet">
                  {kind}, <Where place={{ file: from.file, line: from.line }} />
                </span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {survey.declarations.length > 0 ? (
        <>
          <h3>Deploy and pipeline files say</h3>
          <ul className="bare">
            {survey.declarations.map(({ kind, value, place }) => (
              <li key={`${kind} ${place.file} ${place.line}`}>
                {kind.replace('-', ' ')} <span className="mono">{plain(value)}</span>{' '}
                <span className="quiet">
                  <Where place={{ file: place.file, line: place.line }} />
                </span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {survey.projects.length > 1 ? (
        <>
          <h3>Projects of the repository</h3>
          <ul className="bare">
            {survey.projects.map(({ directory, name, framework, publishDirectory }) => (
              <li key={directory}>
                <span className="mono">{plain(directory || '.')}</span> {plain(name ?? '')}{' '}
                <span className="quiet">
                  {framework ?? 'no framework known'}
                  {publishDirectory ? `, publishes ${plain(publishDirectory)}` : ''}
                </span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </Section>
  )
}

function inWords(value: AnyReading['value'], expression: string | undefined): string {
  if (value === null) return expression ? `computed: ${plain(expression)}` : 'computed'
  return typeof value === 'string' ? plain(value) : value.map(plain).join(', ') || 'none'
}

function readings(survey: SurveyReport): [string, AnyReading][] {
  const all: [string, AnyReading | null][] = [
    ['Project', survey.project],
    ['Framework', survey.framework],
    ['Version', survey.frameworkVersion],
    ['Package manager', survey.packageManager],
    ['Install command', survey.installCommand],
    ['Build command', survey.buildCommand],
    ['Publish directory', survey.publishDirectory],
    ['Base path', survey.basePath],
    ['Base the output shows', survey.observedBase],
    ['Mode', survey.mode],
    ['Public prefixes', survey.environment.prefixes],
    ['Development proxy', survey.devProxy],
    ['Output', survey.output],
    ['Router', survey.router],
    ['Node', survey.nodeVersion],
  ]
  return all.filter((row): row is [string, AnyReading] => row[1] !== null)
}
