/** What a repository knows of when files were changed, whatever their times on disk say. */
export interface History {
  /** The last commit that changed one of the files; null when that can't be known. */
  lastChange(files: ReadonlySet<string>): Promise<Change | null>
  /** Whether a file holds what its last commit holds. */
  isCommitted(file: string): Promise<boolean>
  /** When the last commit changed something in a directory; null when none did. Milliseconds since the epoch. */
  changeOf(directory: string): Promise<number | null>
}

/** A commit that changed a file. */
export interface Change {
  readonly file: string
  /** Milliseconds since the epoch. */
  readonly at: number
}

/** Finds the history of a directory below the folder that was opened; null when there is none. */
export type HistoryOf = (directory: string) => Promise<History | null>
