import { Bar } from '@visx/shape'
import { counted } from '../../../../src/core/model/text.ts'
import type { Step } from '../history.ts'
import { dayOf, Timeline } from './Timeline.tsx'

/** How many paths caches had to forget with each release. */
export function Purges({ steps }: { readonly steps: readonly Step[] }) {
  const known = steps.filter((step) => step.purge !== null)
  if (known.length === 0) return null
  const size = ({ purge }: Step): number => purge ?? 0
  const most = known.reduce((peak, step) => (size(step) > size(peak) ? step : peak))
  return (
    <Timeline
      title="Paths to purge from caches"
      says={`${counted(
        known.reduce((sum, step) => sum + size(step), 0),
        'path',
      )} in ${counted(known.length, 'release')}; most on ${dayOf(most)}: ${size(most)}.`}
      steps={steps}
      height={90}
      to={size(most)}
      ticks={(value) => (Number.isInteger(value) ? String(value) : '')}
    >
      {({ x, y, height, mark }) =>
        known.map((step) => (
          <Bar
            key={step.entry.id}
            x={x(step) - mark / 2}
            y={y(size(step))}
            width={mark}
            height={height - y(size(step))}
            className="of-purge"
          >
            <title>{`${dayOf(step)}: ${size(step)}`}</title>
          </Bar>
        ))
      }
    </Timeline>
  )
}
