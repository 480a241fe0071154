import { directoryOf, joinPath } from '../../model/folder.ts'
import { describeOrigin } from '../../model/reading.ts'
import { type Declaration, isWritten, writtenBy } from '../../project/declared/declarations.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** A deploy or pipeline file names another directory than the build writes. */
export const publishMismatch = defineCheck({
  code: 'project/publish-mismatch',
  severity: 'caution',
  title: 'A deploy file names another directory than the build writes',
  keywords: ['output directory', 'publish directory', 'deploy'],
  run,
})

function run({ survey, folder }: Evidence): Cause[] {
  const { publishDirectory, declarations, projects, definition } = survey
  const written = publishDirectory?.value
  if (!written || !definition || !publishDirectory) return []
  const declared = declarations.filter(({ kind }) => kind === 'publish-directory')
  const isRight = ({ value }: Declaration): boolean => isWritten(value, written, projects)
  const hasRight = declared.some(isRight)
  const isBeside = ({ value }: Declaration): boolean =>
    writtenBy(written, projects).some((path) => directoryOf(path) === directoryOf(joinPath(value)))
  // What is only copied counts where nothing names the build's directory, and it stands where a build would.
  const wrong = declared.filter(
    (each) => !isRight(each) && (each.perhaps === undefined || (!hasRight && isBeside(each))),
  )
  return wrong.map((declaration) =>
    causeOf(declaration, written, describeOrigin(publishDirectory.from), folder.path),
  )
}

function causeOf({ value, place }: Declaration, written: string, from: string, folder: string): Cause {
  return {
    key: `${place.file} ${value}`,
    impact: `What ${place.file} publishes, and not this build: an older copy, or nothing.`,
    cause: `${place.file}:${place.line} names ${value}; the build writes ${written} (${from}).`,
    places: [{ file: folder, offset: null, length: 0, source: place }],
    source: place,
    fix: {
      steps: [`In ${place.file}, line ${place.line}, write ${written}; or let the build write ${value}.`],
      edits: [{ file: place.file, line: place.line, write: written, instead: value }],
    },
  }
}
