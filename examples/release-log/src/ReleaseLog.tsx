import { Button } from 'react-aria-components'
import { counted } from '../../../src/core/model/text.ts'
import { Choice } from '../../../viewer/src/parts/Choice.tsx'
import { useView } from '../../../viewer/src/parts/useView.ts'
import { plain } from '../../../viewer/src/parts/words.ts'
import { ThemeChoice } from '../../../viewer/src/ThemeChoice.tsx'
import { projectsOf } from './history.ts'
import { Intake } from './Intake.tsx'
import { ProjectHistory } from './ProjectHistory.tsx'
import { useLog } from './useLog.ts'

/** The releases of projects over time, from the reports and records that were put into this browser. */
export function ReleaseLog() {
  const log = useLog()
  const [chosen, choose] = useView('project', '')
  const projects = projectsOf(log.entries ?? [])
  const project = projects.find(({ address }) => address === chosen) ?? projects[0] ?? null
  return (
    <main className="log">
      <header className="log-head">
        <div>
          <h1>Release log</h1>
          <p>
            Put the reports and records of your releases here, and see how they change. They are kept in this
            browser and nowhere else.
          </p>
        </div>
        <ThemeChoice />
      </header>
      <Intake log={log} isEmpty={projects.length === 0 && log.entries !== null} />
      {project ? (
        <>
          <div className="log-projects">
            <Choice
              label="Project"
              value={project.address}
              onChange={choose}
              options={projects.map(({ address, name, steps }) => ({
                id: address,
                label: plain(name),
                count: steps.length,
              }))}
            />
            <Button className="copy" onPress={() => void log.forget(project.address)}>
              Forget {plain(project.name)}
            </Button>
          </div>
          <p className="quiet">
            {counted(project.steps.length, 'release')} at <bdi className="mono">{plain(project.address)}</bdi>
          </p>
          <ProjectHistory key={project.address} project={project} />
        </>
      ) : null}
    </main>
  )
}
