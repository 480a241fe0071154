import type { Step } from '../history.ts'
import { dayOf, Timeline } from './Timeline.tsx'

/** Whether each release was clear: by shape and by colour. */
export function Verdicts({ steps }: { readonly steps: readonly Step[] }) {
  const held = steps.filter(({ entry }) => entry.verdict === 'held')
  const last = held.at(-1)
  const says = last
    ? `Held ${held.length} of ${steps.length} times, the last time on ${dayOf(last)}.`
    : `Clear all ${steps.length} times.`
  return (
    <Timeline
      title="Verdicts"
      says={says}
      steps={steps}
      height={34}
      to={1}
      legend={[
        { name: 'clear', className: 'of-clear' },
        { name: 'held (crossed)', className: 'of-held' },
      ]}
    >
      {({ x, height, mark }) =>
        steps.map((step) => (
          <g
            key={step.entry.id}
            transform={`translate(${x(step)} ${height / 2 - 4})`}
            className={step.entry.verdict === 'held' ? 'of-held' : 'of-clear'}
          >
            <title>{`${dayOf(step)}: ${step.entry.verdict}`}</title>
            {step.entry.verdict === 'held' ? (
              <path d={crossOf(mark / 2 + 1)} className="crossed" />
            ) : (
              <circle r={mark / 2} />
            )}
          </g>
        ))
      }
    </Timeline>
  )
}

function crossOf(size: number): string {
  return `M${-size} ${-size} ${size} ${size}M${size} ${-size} ${-size} ${size}`
}
