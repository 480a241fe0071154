import { LinePath } from '@visx/shape'
import { bytesInWords } from '../../../../src/core/model/text.ts'
import type { Step } from '../history.ts'
import { dayOf, Timeline } from './Timeline.tsx'

/** What the heaviest first visit of each release downloads. */
export function Weights({ steps }: { readonly steps: readonly Step[] }) {
  const known = steps.filter((step) => step.heaviest !== null)
  const weight = ({ heaviest }: Step): number => heaviest ?? 0
  const [first] = known
  const last = known.at(-1)
  if (!first || !last) return null
  const peak = known.reduce((most, step) => (weight(step) > weight(most) ? step : most))
  return (
    <Timeline
      title="Weight of the heaviest first visit"
      says={`${bytesInWords(weight(last))} now, ${bytesInWords(weight(first))} on ${dayOf(first)}; most on ${dayOf(peak)}: ${bytesInWords(weight(peak))}.`}
      steps={steps}
      height={130}
      to={weight(peak)}
      ticks={bytesInWords}
    >
      {({ x, y }) => (
        <>
          <LinePath data={known} x={x} y={(step) => y(weight(step))} className="line" />
          {known.map((step) => (
            <circle key={step.entry.id} cx={x(step)} cy={y(weight(step))} r="3.5" className="of-weight">
              <title>{`${dayOf(step)}: ${bytesInWords(weight(step))}`}</title>
            </circle>
          ))}
        </>
      )}
    </Timeline>
  )
}
