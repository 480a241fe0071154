import { AxisBottom } from '@visx/axis'
import { scaleBand, scaleLinear } from '@visx/scale'
import { BarStackHorizontal } from '@visx/shape'
import type { Delivery } from '../../../src/core/model/report.ts'
import { bytesInWords } from '../../../src/core/model/text.ts'
import { useOnPaper } from '../parts/paper.ts'
import { shortenedApart } from '../parts/shortened.ts'
import { useWidth } from '../parts/useWidth.ts'
import { plain } from '../parts/words.ts'
import { type Measure, measured } from './measure.ts'

type Visit = Delivery['firstVisit'][number]
type Kind = Visit['kinds'][number]['kind']

const kinds: readonly Kind[] = ['page', 'script', 'style', 'font', 'image', 'other']
const most = 24
const bar = 26
const foot = 44
const paperWidth = 660

/** A bar for each of the heaviest routes, in parts by kind of file. The table below says the same in numbers. */
export function VisitChart({
  visits,
  measure,
}: {
  readonly visits: readonly Visit[]
  readonly measure: Measure
}) {
  const onPaper = useOnPaper()
  const [frame, there] = useWidth()
  const width = onPaper ? paperWidth : there
  const shown = [...visits].sort((a, b) => measured(b, measure) - measured(a, measure)).slice(0, most)
  const names = new Map(shown.map((visit, index) => [String(index), visit.route]))
  const data = shown.map((visit, index) => ({
    id: String(index),
    ...Object.fromEntries(
      kinds.map((kind) => {
        const part = visit.kinds.find((each) => each.kind === kind)
        return [kind, part ? measured(part, measure) : 0]
      }),
    ),
  })) as ({ id: string } & Record<Kind, number>)[]
  const present = kinds.filter((kind) => data.some((each) => each[kind] > 0))
  const label = Math.min(220, Math.max(70, width * 0.28))
  const labels = shortenedApart(
    shown.map(({ route }) => plain(route)),
    Math.floor(label / 7.4),
  )
  const total = Math.max(1, ...shown.map((visit) => measured(visit, measure)))
  const height = shown.length * bar + foot
  const x = scaleLinear<number>({
    domain: [0, total],
    range: [0, Math.max(10, width - label - 84)],
    nice: false,
  })
  const y = scaleBand<string>({ domain: [...names.keys()], range: [0, shown.length * bar], padding: 0.22 })
  return (
    <figure className="chart" ref={frame}>
      <ul className="bare legend">
        {present.map((kind) => (
          <li key={kind}>
            <span className={`swatch kind-${kind}`} aria-hidden="true" /> {kind}
          </li>
        ))}
      </ul>
      {width > 0 ? (
        <svg width={width} height={height} role="img" aria-label={inWords(shown, measure)}>
          {shown.map((visit, index) => (
            <g key={visit.entryFile}>
              <text x={label - 8} y={(y(String(index)) ?? 0) + bar * 0.5} className="chart-route">
                {labels[index]}
              </text>
              <text
                x={label + x(measured(visit, measure)) + 6}
                y={(y(String(index)) ?? 0) + bar * 0.5}
                className="chart-size"
              >
                {bytesInWords(measured(visit, measure))}
              </text>
            </g>
          ))}
          <g transform={`translate(${label} 0)`}>
            <BarStackHorizontal<(typeof data)[number], Kind>
              data={data}
              keys={[...kinds]}
              y={({ id }) => id}
              xScale={x}
              yScale={y}
              color={() => 'currentColor'}
            >
              {(stacks) =>
                stacks.flatMap((stack) =>
                  stack.bars
                    .filter(({ width: wide }) => wide > 0)
                    .map((part) => (
                      <rect
                        key={`${stack.key} ${part.index}`}
                        x={part.x}
                        y={part.y}
                        width={Math.max(1, part.width - 0.5)}
                        height={part.height}
                        className={`kind-${stack.key}`}
                      >
                        <title>{`${stack.key}: ${bytesInWords(part.bar.data[stack.key])}`}</title>
                      </rect>
                    )),
                )
              }
            </BarStackHorizontal>
            <AxisBottom
              top={shown.length * bar + 4}
              scale={x}
              numTicks={width > 700 ? 6 : 3}
              tickFormat={(value) => bytesInWords(Number(value))}
              axisClassName="axis"
            />
          </g>
        </svg>
      ) : null}
      {visits.length > shown.length ? (
        <figcaption className="quiet">
          The {shown.length} heaviest of {visits.length.toLocaleString('en')}.
        </figcaption>
      ) : null}
    </figure>
  )
}

function inWords(visits: readonly Visit[], measure: Measure): string {
  const [first] = visits
  if (!first) return 'No first visits'
  return `First visits by kind of file. The heaviest is ${plain(first.route)} with ${bytesInWords(measured(first, measure))}. The table below has every number.`
}
