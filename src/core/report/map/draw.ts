import { type HierarchyPointNode, hierarchy, tree } from 'd3-hierarchy'
import type { Report } from '../../model/report.ts'
import { counted, printable } from '../../model/text.ts'
import { fromRoot } from '../in-repository.ts'
import { type Chain, type ChainLink, chainsOf } from './chains.ts'
import { answeredOf, type RouteNode, routesTree } from './routes-tree.ts'

/** Pixels: the height of a row, the width of a letter of this font, and the space around. */
const row = 22
const letter = 7
const margin = 24
/** The width of a picture whose tree is not deep, from one step of it to the next, and the longest texts in it. */
const usualWidth = 1036
const column = 190
const longestStep = 23
const longestLink = 28

/**
 * The site as its host serves it, as SVG 2 (W3C): its routes as a tree with what answers each, and below it a chain for each cause, from what fails
 * back to the line of the source. Light or dark as the reader's system is.
 */
export function mapOf(given: Report): string {
  const report = fromRoot(given)
  const routes = drawnRoutes(given)
  const causes = drawnChains(report, routes.height + margin)
  const height = routes.height + margin + causes.height
  const width = Math.max(usualWidth, routes.width)
  const [site] = report.sites
  const name = report.projects
    ? counted(report.projects.length, 'project')
    : site?.given
      ? site.address
      : `base path ${site?.base ?? '/'}`
  const summary = `${report.verdict === 'held' ? 'Held' : 'Clear'}: ${name}. ${counted(report.routes.length, 'route')}, ${counted(report.findings.filter(({ waived }) => !waived).length, 'finding')}.`
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" role="img" aria-label="${escaped(summary)}">
<title>${escaped(summary)}</title>
<style>${style}</style>
<rect class="paper" width="100%" height="100%"/>
<text class="head" x="${margin}" y="${margin + 6}">${escaped(summary)}</text>
${key(margin + row)}
${routes.text}
${causes.text}
</svg>
`
}

interface Drawn {
  readonly text: string
  readonly height: number
}

/** A tree is as wide as it is deep. */
type DrawnTree = Drawn & { readonly width: number }

/** What answers a route, by shape and word as well as by colour. */
const words = {
  file: 'by its file',
  fallback: 'by the fallback',
  redirect: 'sent on',
  failing: 'an error',
} as const

function key(y: number): string {
  const marks = (Object.keys(words) as (keyof typeof words)[]).map(
    (kind, index) =>
      `<g transform="translate(${margin + 6 + index * 150} ${y + 8})">${mark(kind)}<text x="14" y="4">${words[kind]}</text></g>`,
  )
  return `<g class="key">${marks.join('')}</g>`
}

/** Shapes differ, so that nobody needs the colours. */
function mark(kind: keyof typeof words): string {
  if (kind === 'file') return '<circle class="mark file" r="5"/>'
  if (kind === 'fallback') return '<circle class="mark fallback" r="5"/>'
  if (kind === 'redirect') return '<path class="mark redirect" d="M-5 -5 5 0 -5 5Z"/>'
  return '<path class="mark failing" d="M-5 -5 5 5M-5 5 5 -5"/>'
}

function drawnRoutes({ routes, sites }: Report): DrawnTree {
  const bases = sites.map((site) => ({
    site,
    root: routesTree(
      routes.filter((route) => route.site === site.address),
      site.base,
    ),
  }))
  let y = margin * 2 + row * 2
  let width = 0
  const parts = bases.map(({ site, root }) => {
    const head =
      sites.length > 1
        ? `<text class="strong" x="${margin}" y="${y}">${escaped(shortened(site.address, 90))}</text>`
        : ''
    if (head) y += row
    const { text, ...size } = drawnTree(root, y)
    y += size.height
    width = Math.max(width, size.width)
    return head + text
  })
  return { text: parts.join('\n'), height: y, width }
}

function drawnTree(root: RouteNode, top: number): DrawnTree {
  const placed = tree<RouteNode>()
    .nodeSize([row, column])
    .separation(() => 1)(hierarchy(root, ({ children }) => children))
  const nodes = placed.descendants()
  const least = Math.min(...nodes.map(({ x }) => x))
  const most = Math.max(...nodes.map(({ x }) => x))
  const at = (node: HierarchyPointNode<RouteNode>): { x: number; y: number } => ({
    x: margin + 8 + node.y,
    y: top + node.x - least,
  })
  const lines = placed.links().map(({ source, target }) => {
    const [from, to] = [at(source), at(target)]
    const start = from.x + 20 + labelOf(source.data).length * letter
    const middle = Math.max(start + 4, to.x - 26)
    return `<path class="line" d="M${Math.min(start, to.x - 12)} ${from.y}H${Math.min(middle, to.x - 12)}V${to.y}H${to.x - 8}"/>`
  })
  const texts = nodes.map((node) => {
    const { x, y } = at(node)
    const { route } = node.data
    const kind = route ? answeredOf(route) : null
    const said = route && node.children === undefined && node.data.alike === 0 ? answerOf(route) : ''
    return `<g transform="translate(${x} ${y})">${kind ? mark(kind) : '<circle class="step" r="2.5"/>'}<text x="12" y="4" class="${kind ?? 'quiet'}-text">${escaped(labelOf(node.data))}</text>${said ? `<text class="quiet" x="${18 + labelOf(node.data).length * letter}" y="4">${escaped(said)}</text>` : ''}</g>`
  })
  const deepest = Math.max(...nodes.map(({ y }) => y))
  return {
    text: [...lines, ...texts].join('\n'),
    height: most - least + row,
    width: margin * 2 + deepest + column * 1.5,
  }
}

function labelOf({ step, alike }: RouteNode): string {
  return alike > 0 ? `and ${alike.toLocaleString('en')} more like these` : shortened(step, longestStep)
}

/** What is more than the mark says. */
function answerOf(route: NonNullable<RouteNode['route']>): string {
  const { status, entryFile, redirects } = route
  const kind = answeredOf(route)
  if (kind === 'redirect') return shortened(`to ${redirects.at(-1) ?? ''}`, 24)
  if (kind === 'fallback') return shortened(entryFile ?? '', 24)
  return kind === 'failing' ? String(status) : ''
}

const boxHeight = 46
const boxWidth = 226

function drawnChains(report: Report, top: number): Drawn {
  const { chains, left } = chainsOf(report)
  if (chains.length === 0) return { text: '', height: 0 }
  let y = top
  const parts = chains.map((chain) => {
    const text = drawnChain(chain, y)
    y += row + boxHeight + margin
    return text
  })
  const rest =
    left > 0 ? `<text class="quiet" x="${margin}" y="${y}">and ${counted(left, 'more cause')}</text>` : ''
  return { text: [...parts, rest].join('\n'), height: y - top + margin }
}

function drawnChain({ title, code, severity, links }: Chain, y: number): string {
  const head = `<text class="strong ${severity}-text" x="${margin}" y="${y}">${severity}</text><text class="strong" x="${margin + 64}" y="${y}">${escaped(shortened(title, 86))}</text><text class="quiet" text-anchor="end" x="${usualWidth - margin}" y="${y}">${escaped(code)}</text>`
  const boxes = links.map((link, index) => box(link, margin + index * (boxWidth + 28), y + 12, index > 0))
  return head + boxes.join('')
}

/** A box, with an arrow to the one before: what stands there comes from this. */
function box({ kind, text, more }: ChainLink, x: number, y: number, isCause: boolean): string {
  const arrow = isCause
    ? `<path class="line" d="M${x} ${y + boxHeight / 2}H${x - 26}"/><path class="head-of-line" d="M${x - 20} ${y + boxHeight / 2 - 5}L${x - 27} ${y + boxHeight / 2}L${x - 20} ${y + boxHeight / 2 + 5}"/>`
    : ''
  return `${arrow}<g transform="translate(${x} ${y})"><rect class="box ${kind}" width="${boxWidth}" height="${boxHeight}" rx="4"/><text class="mono" x="10" y="19">${escaped(shortened(text, longestLink))}</text><text class="quiet" x="10" y="36">${escaped(more)}</text></g>`
}

/** The end says more than the beginning, of paths and of addresses. */
function shortened(text: string, most: number): string {
  const shown = printable(text)
  if (shown.length <= most) return shown
  const head = Math.floor(most / 3)
  return `${shown.slice(0, head)}…${shown.slice(shown.length - (most - head - 1))}`
}

/** Text as XML takes it: markup escaped, and what no XML may hold replaced. */
function escaped(text: string): string {
  return printable(text)
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '\ufffd')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
}

const style = `
text{font:12px ui-monospace,"DejaVu Sans Mono",monospace;fill:#17272d}
.paper{fill:#f6f7f4}.head{font-size:15px;font-weight:700}.strong{font-weight:700}.quiet,.quiet-text{fill:#566a70}
.line,.head-of-line{fill:none;stroke:#9aa9ad}.step{fill:#9aa9ad}
.mark{stroke-width:2}.file{fill:#2c6e49;stroke:#2c6e49}.fallback{fill:none;stroke:#1f5f8b}.redirect{fill:#8a6100;stroke:#8a6100}.failing{fill:none;stroke:#a3231a}
.failing-text,.blocker-text{fill:#a3231a;font-weight:700}.caution-text{fill:#7a5600}
.box{fill:#fff;stroke:#c4cdcf}.box.request{stroke:#a3231a}.box.source{stroke:#1f5f8b}.box.fix{stroke:#2c6e49;stroke-dasharray:4 3}
@media (prefers-color-scheme:dark){text{fill:#dbe4e6}.paper{fill:#10191c}.quiet,.quiet-text{fill:#93a5aa}.line,.head-of-line{stroke:#5b6d72}.step{fill:#5b6d72}
.file{fill:#6fcf97;stroke:#6fcf97}.fallback{stroke:#7cc0ea}.redirect{fill:#e0b24a;stroke:#e0b24a}.failing{stroke:#ff8a80}
.failing-text,.blocker-text{fill:#ff8a80}.caution-text{fill:#e0b24a}.box{fill:#17262a;stroke:#3b4d52}.box.request{stroke:#ff8a80}.box.source{stroke:#7cc0ea}.box.fix{stroke:#6fcf97}}
`.replaceAll('\n', '')
