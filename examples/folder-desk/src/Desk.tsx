import { ReportPage } from '../../../viewer/src/ReportPage.tsx'
import { FolderPlace } from './FolderPlace.tsx'
import { HowServed } from './HowServed.tsx'
import { useDesk } from './useDesk.ts'

/** A desk to put a build folder on. */
export function Desk() {
  const desk = useDesk()
  const { now, before, payload } = desk
  return (
    <main className="desk">
      <header className="desk-head">
        <h1>Folder desk</h1>
        <p>
          Put a build folder here before it goes out, and see what a visitor would see. It is read in this
          page and nowhere else: the page may request nothing.
        </p>
      </header>
      <section aria-label="Folders" className="desk-folders">
        <FolderPlace
          title="The folder to look at"
          about="Drop a build folder, a project with its build in it, or a zip."
          progress={now}
          onPut={(collected) => desk.put('now', collected)}
          onTake={() => desk.take('now')}
          onStop={() => desk.stop('now')}
        />
        {payload ? (
          <FolderPlace
            title="What shipped before"
            about="Drop the folder of the last release, and see what this one changes."
            progress={before}
            onPut={(collected) => desk.put('before', collected)}
            onTake={() => desk.take('before')}
            onStop={() => desk.stop('before')}
          />
        ) : null}
        <HowServed serving={desk.serving} refused={desk.refused} onChange={desk.check} />
      </section>
      {payload ? <ReportPage payload={payload} embedded /> : null}
    </main>
  )
}
