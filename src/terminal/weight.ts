import type { Delivery, Report } from '../core/model/report.ts'
import { bytesInWords, grouped } from '../core/model/text.ts'
import { downloaded } from '../core/release/weight.ts'
import { cutMiddle, type Style } from './style.ts'

const mostVisits = 12
const mostFiles = 5
/** Eighths of a column, so that small parts still show. */
const blocks = ['', '▏', '▎', '▍', '▌', '▋', '▊', '▉', '█']

/** A bar for each route's first visit, the heaviest first, and the largest files. */
export function weightTable({ delivery }: Pick<Report, 'delivery'>, style: Style): string[] {
  const { colors } = style
  return [
    `  ${colors.bold('First visits')}  ${colors.dim(how(delivery))}`,
    ...visitLines(delivery, style),
    '',
    `  ${colors.bold('Largest files')}`,
    ...delivery.largest
      .slice(0, mostFiles)
      .map(
        ({ file, bytes }) => `    ${bytesInWords(bytes).padStart(8)}  ${cutMiddle(file, style.width - 16)}`,
      ),
  ]
}

function how({ compressedBytes }: Delivery): string {
  return compressedBytes === null ? 'as the files are in the folder' : 'as gzip sends them, and uncompressed'
}

function visitLines({ firstVisit, routes }: Delivery, { colors, width }: Style): string[] {
  const shown = firstVisit.slice(0, mostVisits)
  const longest = Math.min(34, Math.max(...shown.map(({ route }) => route.length)))
  const room = Math.max(8, width - 4 - longest - 2 - 9 - 10 - 26)
  const most = Math.max(...shown.map(downloaded))
  const lines = shown.map((visit) => {
    const bar = barOf(downloaded(visit) / most, room)
    const name = cutMiddle(visit.route, longest).padEnd(longest + 2)
    const sizes = `${bytesInWords(downloaded(visit)).padStart(8)}${bytesInWords(visit.bytes).padStart(10)}`
    return `    ${name}${colors.cyan(bar.padEnd(room))} ${sizes}  ${colors.dim(partsOf(visit.kinds))}`.trimEnd()
  })
  const more = routes - shown.length
  if (more > 0) lines.push(colors.dim(`    and ${grouped(more)} more, lighter than these`))
  return lines
}

function barOf(share: number, room: number): string {
  const eighths = Math.max(1, Math.round(share * room * 8))
  return '█'.repeat(Math.floor(eighths / 8)) + (blocks[eighths % 8] ?? '')
}

/** The kinds that weigh most: `script 82%, font 11%`. */
function partsOf(kinds: Delivery['firstVisit'][number]['kinds']): string {
  const all = kinds.reduce((sum, kind) => sum + downloaded(kind), 0)
  return [...kinds]
    .sort((a, b) => downloaded(b) - downloaded(a))
    .slice(0, 2)
    .map((kind) => `${kind.kind} ${Math.round((downloaded(kind) / Math.max(1, all)) * 100)}%`)
    .join(', ')
}

/** `, first visit 88 kB compressed`; `up to` where visits differ. */
export function weightSummary({ delivery: { firstVisit } }: Pick<Report, 'delivery'>): string {
  const [first] = [...firstVisit].sort((a, b) => downloaded(b) - downloaded(a))
  if (!first) return ''
  const upTo = firstVisit.length > 1 ? 'up to ' : ''
  return `, first visit ${upTo}${bytesInWords(downloaded(first))}${first.gzip === null ? '' : ' compressed'}`
}
