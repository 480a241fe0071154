import type {
  ArtifactLocation,
  Fix,
  Location,
  Log,
  PhysicalLocation,
  ReportingDescriptor,
  Result,
} from 'sarif'
import type { Check } from '../../checks/check.ts'
import type { Explanation, Explanations } from '../../checks/explanation.ts'
import { isPlaced } from '../../edits/edit.ts'
import type { Finding, FindingPlace, Report } from '../../model/report.ts'
import { wellFormed } from '../../model/text.ts'
import { fromRoot } from '../in-repository.ts'
import type { ReportFormat } from './format.ts'

const levels = { blocker: 'error', caution: 'warning', note: 'note' } as const

/** Places of one result; more make files that no reader opens. */
const mostPlaces = 100

/** The report as SARIF 2.1.0 (OASIS standard): one run, a rule for each finding code, a result for each cause. */
export function sarifOf(
  report: Report,
  checks: readonly Check[],
  version: string,
  explanations: Explanations = {},
): Log {
  const used = checks.filter(({ code }) => report.findings.some((finding) => finding.code === code))
  return {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'wardoscope',
            version,
            rules: used.map((each) => ruleOf(each, explanations[each.code])),
          },
        },
        columnKind: 'utf16CodeUnits',
        ...(report.repository && {
          originalUriBaseIds: { [root]: { description: { text: 'The root of the repository' } } },
        }),
        results: fromRoot(report).findings.map((finding) => resultOf(finding, used, report)),
      },
    ],
  }
}

function ruleOf({ code, title, severity }: Check, explanation?: Explanation): ReportingDescriptor {
  const { meaning = title, example, fix } = explanation ?? {}
  const help = [meaning, example && `For example: ${example}`, fix && `To fix it: ${fix}`]
  return {
    id: code,
    name: code.replace(/(?:^|[/-])(\w)/g, (_, letter: string) => letter.toUpperCase()),
    shortDescription: { text: title },
    fullDescription: { text: meaning },
    help: { text: help.filter(Boolean).join('\n\n') },
    defaultConfiguration: { level: levels[severity] },
  }
}

/** Places in the project come first: that is where a person fixes it. */
function resultOf(finding: Finding, rules: readonly Check[], report: Report): Result {
  const { code, severity, impact, cause, fix, source, places, fingerprint, waiver } = finding
  const inSource = source ? [{ ...source, excerpt: source.excerpt ?? null }] : []
  return {
    ruleId: code,
    ruleIndex: rules.findIndex((check) => check.code === code),
    level: levels[severity],
    message: { text: [impact, cause, ...fix.steps].join(' ') },
    locations: [...inSource, ...places.slice(0, mostPlaces)].map((place) => locationOf(place, report)),
    // A place changes with every build; what names the cause does not.
    partialFingerprints: { 'wardoscopeCause/v1': fingerprint },
    ...(isKnown(fix) ? { fixes: [fixOf(fix, report)] } : {}),
    ...(waiver
      ? { suppressions: [{ kind: 'external', status: 'accepted', justification: waiver.reason }] }
      : {}),
  }
}

/** Whether a program can make all that the fix tells, with nothing left for a person to give. */
function isKnown({ edits }: Finding['fix']): boolean {
  return (
    edits.length > 0 &&
    // The standard knows no moved file.
    edits.every((edit) => isPlaced(edit) && edit.needs === undefined && edit.moveTo === undefined)
  )
}

function fixOf({ steps, edits }: Finding['fix'], report: Report): Fix {
  return {
    description: { text: steps[0] ?? '' },
    artifactChanges: edits.filter(isPlaced).map(({ file, range, text }) => ({
      artifactLocation: artifactOf(file, report),
      replacements: [
        {
          deletedRegion: { charOffset: range.start, charLength: range.end - range.start },
          insertedContent: { text },
        },
      ],
    })),
  }
}

type Placed = Pick<FindingPlace, 'file' | 'line' | 'column' | 'excerpt'>

/** What the URIs of places in the repository are relative to. */
const root = 'REPOSITORY'

function artifactOf(file: string, { repository }: Report): ArtifactLocation {
  const uri = uriOf(file)
  return repository && !uri.startsWith('file:') ? { uri, uriBaseId: root } : { uri }
}

function locationOf({ file, line, column, excerpt }: Placed, report: Report): Location {
  const artifactLocation = artifactOf(file, report)
  const region =
    line === null
      ? {}
      : {
          region: {
            startLine: line,
            startColumn: column ?? 1,
            ...(excerpt ? { snippet: { text: excerpt } } : {}),
          },
        }
  const physicalLocation: PhysicalLocation = { artifactLocation, ...region }
  return { physicalLocation }
}

/** A URI reference (RFC 3986): what is no plain path letter is percent-encoded. A path from the root is a file URI. */
function uriOf(file: string): string {
  const path = wellFormed(file).split('/').map(encodeURIComponent).join('/')
  return file.startsWith('/') ? `file://${path}` : path
}

/** For readers of static analysis. */
export const sarif: ReportFormat = {
  name: 'sarif',
  extension: 'sarif',
  render: async (report, { checks, version, explanations }) =>
    `${JSON.stringify(sarifOf(report, checks, version, await explanations()), null, 2)}\n`,
}
