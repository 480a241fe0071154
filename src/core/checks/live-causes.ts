import type { Live, LiveDifference, LiveFile, LiveState } from '../live/live.ts'
import { counted } from '../model/text.ts'
import type { Cause, CausePlace, Evidence } from './check.ts'

/** What a check of an address says of the first of its files, and of how many. */
export type TellLive<File> = (
  first: File,
  all: readonly File[],
  evidence: Evidence,
) => Pick<Cause, 'impact' | 'cause' | 'severity'> & { readonly steps: readonly string[] }

/** One cause for the files that came in one of these states. */
export function differing(
  states: readonly LiveState[],
  tell: TellLive<LiveDifference>,
): (evidence: Evidence) => Cause[] {
  return (evidence) =>
    causeOf(evidence.live?.differing.filter(({ state }) => states.includes(state)) ?? [], evidence, tell)
}

/** One cause for a list of what was found. */
export function listed<File extends LiveFile>(
  of: (live: Live) => readonly File[],
  tell: TellLive<File>,
): (evidence: Evidence) => Cause[] {
  return (evidence) => causeOf(evidence.live ? of(evidence.live) : [], evidence, tell)
}

function causeOf<File extends LiveFile>(
  files: readonly File[],
  evidence: Evidence,
  tell: TellLive<File>,
): Cause[] {
  const [first] = files
  if (!first) return []
  const { steps, ...said } = tell(first, files, evidence)
  return [{ key: 'live', ...said, places: files.map(placeOf), fix: [...steps] }]
}

function placeOf({ path, url, status }: LiveFile): CausePlace {
  return { file: path, offset: null, length: 0, request: url, ...(status === null ? {} : { status }) }
}

/** `assets/app.js`, `assets/app.js and 3 more`. */
export function named(files: readonly LiveFile[]): string {
  const [first] = files
  return files.length > 1
    ? `${first?.path} and ${counted(files.length - 1, 'more file')}`
    : (first?.path ?? '')
}
