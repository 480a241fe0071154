import { Button, DropZone, FileTrigger, ProgressBar, Text } from 'react-aria-components'
import { counted } from '../../../src/core/model/text.ts'
import { plain } from '../../../viewer/src/parts/words.ts'
import { type Collected, collectDropped, collectPicked } from './collect.ts'
import type { Progress } from './useDesk.ts'

/** A place for one folder: by dropping it, or by picking it. */
export function FolderPlace({
  title,
  about,
  progress,
  onPut,
  onTake,
  onStop,
}: {
  readonly title: string
  readonly about: string
  readonly progress: Progress
  readonly onPut: (collected: Collected) => void
  readonly onTake: () => void
  readonly onStop: () => void
}) {
  const picked = (list: FileList | null): void => {
    if (list && list.length > 0) onPut(collectPicked(list))
  }
  return (
    <DropZone
      className="place-for-folder"
      aria-label={title}
      onDrop={({ items }) => onPut(collectDropped(items))}
    >
      <Text slot="label" className="place-title">
        {title}
      </Text>
      {progress.is === 'empty' || progress.is === 'failed' ? <p className="quiet">{about}</p> : null}
      {progress.is === 'failed' ? (
        <p className="bad" role="alert">
          {plain(progress.message)}
        </p>
      ) : null}
      {progress.is === 'collecting' ? (
        <ProgressBar className="progress" isIndeterminate aria-label={`Collecting ${plain(progress.label)}`}>
          <span>
            Collecting <bdi>{plain(progress.label)}</bdi>: {counted(progress.files, 'file')}
          </span>
        </ProgressBar>
      ) : null}
      {progress.is === 'reading' ? (
        <ProgressBar
          className="progress"
          value={progress.share * 100}
          aria-label={`Reading ${plain(progress.label)}`}
        >
          {({ percentage = 0, valueText }) => (
            <>
              <span>
                Reading <bdi>{plain(progress.label)}</bdi>, {valueText}
              </span>
              <svg className="progress-bar" viewBox="0 0 100 4" preserveAspectRatio="none" aria-hidden="true">
                <rect width={percentage} height="4" />
              </svg>
            </>
          )}
        </ProgressBar>
      ) : null}
      {progress.is === 'reading' || progress.is === 'collecting' ? (
        <p>
          <Button className="copy" onPress={onStop}>
            Stop
          </Button>
        </p>
      ) : null}
      {progress.is === 'read' ? (
        <p className="place-read">
          <bdi className="mono">{plain(progress.label)}</bdi>
          <span className="quiet">{counted(progress.files, 'file')}</span>
          <Button className="copy" onPress={onTake}>
            Take away
          </Button>
        </p>
      ) : null}
      <p className="place-buttons">
        <FileTrigger acceptDirectory onSelect={picked}>
          <Button className="copy">Pick a folder</Button>
        </FileTrigger>
        <FileTrigger acceptedFileTypes={['.zip', 'application/zip']} onSelect={picked}>
          <Button className="copy">Pick a zip</Button>
        </FileTrigger>
      </p>
    </DropZone>
  )
}
