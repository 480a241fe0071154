import { useCallback, useEffect, useState } from 'react'
import { type Entry, entryOf, largestFile, NotALogFile } from './entry.ts'
import { allEntries, forget, keep } from './store.ts'

/** A file that is given to the log. */
export interface GivenFile {
  readonly name: string
  /** Bytes. */
  readonly size: number
  /** Milliseconds since the epoch. */
  readonly lastModified: number
  text(): Promise<string>
}

/** What became of the files that were given last. */
export interface Taken {
  readonly files: number
  readonly problems: readonly string[]
}

/** The log that this browser keeps. */
export function useLog() {
  const [entries, setEntries] = useState<readonly Entry[] | null>(null)
  const [taken, setTaken] = useState<Taken | null>(null)
  const [reading, setReading] = useState<{ readonly done: number; readonly of: number } | null>(null)
  const [failure, setFailure] = useState<string | null>(null)

  const reload = useCallback(async (): Promise<void> => {
    try {
      setEntries(await allEntries())
    } catch {
      setEntries([])
      setFailure(
        'This browser keeps nothing for this page. Is it a private window? The log lasts until the page is closed.',
      )
    }
  }, [])
  useEffect(() => {
    void reload()
  }, [reload])

  return {
    entries,
    taken,
    reading,
    failure,
    async take(files: readonly GivenFile[]): Promise<void> {
      setReading({ done: 0, of: files.length })
      const { fresh, problems } = await read(files, (done) => setReading({ done, of: files.length }))
      setReading(null)
      try {
        await keep(fresh)
        setTaken({ files: fresh.length, problems })
      } catch {
        setTaken({
          files: 0,
          problems: [...problems, 'This browser has no room for these files. Nothing was kept.'],
        })
      }
      await reload()
    },
    async forget(address: string | null): Promise<void> {
      await forget(address)
      setTaken(null)
      await reload()
    },
  }
}

async function read(
  files: readonly GivenFile[],
  onDone: (done: number) => void,
): Promise<{ fresh: Entry[]; problems: string[] }> {
  const fresh: Entry[] = []
  const problems: string[] = []
  for (const [index, file] of files.entries()) {
    try {
      if (file.size > largestFile) throw new NotALogFile(`${file.name} is larger than 50 MB.`)
      fresh.push(entryOf(file.name, file.lastModified, await file.text()))
    } catch (error) {
      problems.push(error instanceof NotALogFile ? error.message : `${file.name} can't be read.`)
    }
    onDone(index + 1)
  }
  return { fresh, problems }
}
