import { Bar } from '@visx/shape'
import { counted } from '../../../../src/core/model/text.ts'
import type { Step } from '../history.ts'
import { dayOf, Timeline } from './Timeline.tsx'

/** Findings that came with each release, upwards, and those that were solved in it, downwards. */
export function Findings({ steps }: { readonly steps: readonly Step[] }) {
  const fresh = steps.map((step) => step.fresh?.length ?? 0)
  const solved = steps.map((step) => step.solved?.length ?? 0)
  const now = steps.findLast(({ standing }) => standing !== null)?.standing
  const sum = (list: readonly number[]): number => list.reduce((all, each) => all + each, 0)
  const stands = now
    ? ` In the last report stand ${counted(now.blocker, 'blocker')} and ${counted(now.caution, 'caution')}.`
    : ''
  return (
    <Timeline
      title="Findings, new and solved"
      says={`${sum(fresh)} came and ${sum(solved)} were solved; notes are left out.${stands}`}
      steps={steps}
      height={110}
      from={-Math.max(1, ...solved)}
      to={Math.max(1, ...fresh)}
      ticks={(value) => (Number.isInteger(value) ? String(Math.abs(value)) : '')}
      legend={[
        { name: 'new, upwards', className: 'of-new' },
        { name: 'solved, downwards', className: 'of-clear' },
      ]}
    >
      {({ x, y, right, mark }) => (
        <>
          <line x1={0} x2={right} y1={y(0)} y2={y(0)} className="zero" />
          {steps.map((step, index) => (
            <g key={step.entry.id}>
              <Bar
                x={x(step) - mark / 2}
                y={y(fresh[index] ?? 0)}
                width={mark}
                height={y(0) - y(fresh[index] ?? 0)}
                className="of-new"
              />
              <Bar
                x={x(step) - mark / 2}
                y={y(0)}
                width={mark}
                height={y(-(solved[index] ?? 0)) - y(0)}
                className="of-clear"
              />
              <title>{`${dayOf(step)}: ${fresh[index]} new, ${solved[index]} solved`}</title>
            </g>
          ))}
        </>
      )}
    </Timeline>
  )
}
