import { useState } from 'react'
import { Button, DropZone, FileTrigger, isFileDropItem, ProgressBar, Text } from 'react-aria-components'
import { counted } from '../../../src/core/model/text.ts'
import { plain } from '../../../viewer/src/parts/words.ts'
import { sampleFiles } from './sample.ts'
import type { useLog } from './useLog.ts'

const mostProblems = 8

/** Where files are put: by dropping, by picking, or the made-up ones that come with the page. */
export function Intake({
  log,
  isEmpty,
}: {
  readonly log: ReturnType<typeof useLog>
  readonly isEmpty: boolean
}) {
  const [problem, setProblem] = useState<string | null>(null)
  const { reading, taken, failure } = log
  const showSample = async (): Promise<void> => {
    try {
      await log.take(await sampleFiles())
    } catch {
      setProblem('The made-up releases do not arrive. Is the page still served?')
    }
  }
  return (
    <DropZone
      className="place-for-files"
      aria-label="Reports and records"
      onDrop={async ({ items }) =>
        log.take(await Promise.all(items.filter(isFileDropItem).map((item) => item.getFile())))
      }
    >
      <Text slot="label" className="unseen">
        Reports and records
      </Text>
      <p className="log-buttons">
        <FileTrigger
          allowsMultiple
          acceptedFileTypes={['.json', 'application/json']}
          onSelect={(list) => void log.take([...(list ?? [])])}
        >
          <Button className="copy">Pick files</Button>
        </FileTrigger>
        <Button className="copy" onPress={() => void showSample()}>
          Show the releases of Skerry Line
        </Button>
        <span className="quiet">or drop reports (JSON) and records here</span>
      </p>
      {isEmpty ? (
        <p className="quiet">
          A report comes of <code>wardoscope --format json --out 2026-11-28.report.json</code>, a record of{' '}
          <code>--record 2026-11-28.record.json</code>. The date in the name is the time of the release;
          without one, the file's own time is taken.
        </p>
      ) : null}
      {reading ? (
        <ProgressBar
          className="progress"
          value={reading.done}
          maxValue={Math.max(1, reading.of)}
          aria-label="Reading"
        >
          {({ valueText }) => (
            <span>
              Reading {counted(reading.of, 'file')}, {valueText}
            </span>
          )}
        </ProgressBar>
      ) : null}
      <div role="status">
        {taken ? <p>{counted(taken.files, 'file')} taken.</p> : null}
        {[failure, problem, ...(taken?.problems ?? []).slice(0, mostProblems)].map((text) =>
          text === null ? null : (
            <p key={text} className="bad">
              {plain(text)}
            </p>
          ),
        )}
        {taken && taken.problems.length > mostProblems ? (
          <p className="bad">and {taken.problems.length - mostProblems} more files that can't be read.</p>
        ) : null}
      </div>
    </DropZone>
  )
}
