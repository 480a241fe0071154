import { AxisBottom, AxisLeft } from '@visx/axis'
import { scaleLinear, scaleUtc } from '@visx/scale'
import type { ReactNode } from 'react'
import { useWidth } from '../../../../viewer/src/parts/useWidth.ts'
import type { Step } from '../history.ts'

/** Where things are drawn: across by time, upwards by value. */
export interface Scales {
  readonly x: (step: Step) => number
  readonly y: (value: number) => number
  /** What is left and right of the values, and the height of the plot; CSS pixels. */
  readonly right: number
  readonly height: number
  /** How wide a mark may be, so that it stands apart from the next; CSS pixels. */
  readonly mark: number
}

const left = 64
const right = 16
const top = 10
const foot = 28

/** A plot of the releases of a project over time, with a sentence that says the same. */
export function Timeline({
  title,
  says,
  steps,
  height,
  from = 0,
  to,
  ticks = null,
  legend = [],
  children,
}: {
  readonly title: string
  readonly says: string
  readonly steps: readonly Step[]
  readonly height: number
  /** The lowest and the highest value. */
  readonly from?: number
  readonly to: number
  /** How values are written at the left; null for no axis. */
  readonly ticks?: ((value: number) => string) | null
  readonly legend?: readonly { readonly name: string; readonly className: string }[]
  readonly children: (scales: Scales) => ReactNode
}) {
  const [frame, width] = useWidth()
  const times = steps.map(timeOf)
  const across = scaleUtc<number>({
    domain: [Math.min(...times), Math.max(...times)],
    range: [14, Math.max(40, width - left - right)],
  })
  const upwards = scaleLinear<number>({
    domain: [from, Math.max(to, from + 1)],
    range: [height, 0],
    nice: true,
  })
  const scales: Scales = {
    x: (step) => across(timeOf(step)),
    y: (value) => upwards(value),
    right: Math.max(40, width - left - right),
    height,
    mark: Math.max(2, Math.min(10, ((width - left - right) / Math.max(1, steps.length)) * 0.7)),
  }
  return (
    <figure className="chart timeline" ref={frame}>
      <figcaption>
        <h3>{title}</h3>
        <p>{says}</p>
      </figcaption>
      {legend.length > 0 ? (
        <ul className="bare legend">
          {legend.map(({ name, className }) => (
            <li key={name}>
              <span className={`swatch ${className}`} aria-hidden="true" /> {name}
            </li>
          ))}
        </ul>
      ) : null}
      {width > 0 ? (
        <svg width={width} height={top + height + foot} role="img" aria-label={`${title}. ${says}`}>
          <g transform={`translate(${left} ${top})`}>
            {children(scales)}
            {ticks ? (
              <AxisLeft
                scale={upwards}
                numTicks={4}
                tickFormat={(value) => ticks(Number(value))}
                axisClassName="axis"
              />
            ) : null}
            <AxisBottom top={height} scale={across} numTicks={width > 700 ? 8 : 3} axisClassName="axis" />
          </g>
        </svg>
      ) : null}
    </figure>
  )
}

function timeOf({ entry }: Step): number {
  return Date.parse(`${entry.when}:00Z`)
}

/** The day of a release, as text beside a mark says it. */
export function dayOf({ entry }: Step): string {
  return entry.when.slice(0, 10)
}
