import type { Explanations } from '../../checks/explanation.ts'
import { sha256Of } from '../../model/digest.ts'
import type { Report } from '../../model/report.ts'
import { printable } from '../../model/text.ts'
import type { ReportFormat } from './format.ts'

/** All that the page shows. */
export interface Payload {
  readonly report: Report
  /** By finding code, those of the report. */
  readonly explanations: Explanations
  /** Pictures of a rehearsal as data URLs, by the path the report names. */
  readonly pictures: Readonly<Record<string, string>>
  readonly version: string
  /** When the report was made, in words. */
  readonly made: string
}

/** The pages that show a report, as their own build wrote them. */
export interface Viewer {
  readonly script: string
  readonly style: string
}

/**
 * One file that shows a report: the viewer and its data. It asks nobody for anything, and its policy (Content Security
 * Policy Level 3) lets nothing run but the viewer itself, known by its digest. Whatever comes from a build stands in a
 * data block, in which no character can end the block.
 */
export async function htmlOf(payload: Payload, { script, style }: Viewer): Promise<string> {
  const [site] = payload.report.sites
  const policy = [
    "default-src 'none'",
    `script-src '${await sha256Of(script)}'`,
    `style-src '${await sha256Of(style)}'`,
    'img-src data:',
    "base-uri 'none'",
    "form-action 'none'",
  ].join('; ')
  const title = `${payload.report.verdict === 'held' ? 'Held' : 'Clear'}: ${printable(site?.address ?? '')}`
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="referrer" content="no-referrer">
<title>${asText(title)}</title>
<style id="${styleId}">${style}</style>
</head>
<body>
<div id="page"><noscript>This report is drawn by the script inside it. Allow scripts for this file, or make the report in the format markdown.</noscript></div>
<script type="application/json" id="report">${asData(payload)}</script>
<script>${script}</script>
</body>
</html>
`
}

/** The component library adds a style element of its own, which the policy forbids, unless one of this name is there. */
const styleId = 'react-aria-pressable-style'

/** JSON without the characters that could end a script element or open a comment in it. */
function asData(payload: Payload): string {
  return JSON.stringify(payload).replace(
    /[<>&\u2028\u2029]/g,
    (character) => `\\u${character.charCodeAt(0).toString(16).padStart(4, '0')}`,
  )
}

function asText(text: string): string {
  return text.replace(/[&<>"]/g, (character) => `&#${character.charCodeAt(0)};`)
}

/** One page that holds all it shows. */
export const html: ReportFormat = {
  name: 'html',
  extension: 'html',
  render: async (report, { explanations, version, now, viewer, pictures }) => {
    const made = `${now.toISOString().slice(0, 16).replace('T', ' ')} UTC`
    const payload = { report, explanations: await explanations(), pictures: await pictures(), version, made }
    return htmlOf(payload, await viewer())
  },
}
