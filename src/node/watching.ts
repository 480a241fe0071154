import { sep } from 'node:path'
import { watch } from 'chokidar'

/** How long nothing may have been written before a folder counts as at rest; milliseconds. */
export const rest = 100
/** The same before something worse than before is reported: whoever writes a folder may pause. */
export const calm = 800

/** Files and folders that are looked at again when they come to rest. */
export interface Watching {
  /** Ends it. */
  readonly close: () => Promise<void>
}

/** What a look at what is at rest comes to: done, or to be looked at again once it has been calm for longer. */
export type Looked = 'done' | 'not sure'

function isIn(path: string, directory: string): boolean {
  return path === directory || path.startsWith(directory + sep)
}

/** What is there may go and come again: its directory is watched from above. */
function isWatched(path: string, roots: readonly string[], paths: readonly string[]): boolean {
  const root = roots.find((each) => isIn(path, each)) ?? ''
  if (/[\\/](?:node_modules|\.git)(?:[\\/]|$)/.test(path.slice(root.length))) return false
  return roots.includes(path) || paths.some((each) => isIn(path, each) || isIn(each, path))
}

/**
 * Calls `look` whenever something was written below these paths and has come to rest. What is written while it looks makes what it saw void:
 * it is called again. Never two at a time.
 * @param roots the directories that hold all of them
 * @param look `isCalm` says whether nothing was written for the longer time; `isVoid` tells, when it has looked, whether something was
 */
export async function watching(
  roots: readonly string[],
  paths: readonly string[],
  look: (state: { readonly isCalm: boolean; readonly isVoid: () => boolean }) => Promise<Looked>,
): Promise<Watching> {
  let timer: NodeJS.Timeout | null = null
  let writes = 0
  let busy = false
  const wait = (milliseconds: number): void => {
    if (timer) clearTimeout(timer)
    timer = setTimeout(() => void judge(milliseconds >= calm), milliseconds)
  }
  const judge = async (isCalm: boolean): Promise<void> => {
    if (busy) return
    busy = true
    const seen = writes
    const looked = await look({ isCalm, isVoid: () => writes !== seen })
    busy = false
    if (writes !== seen) wait(rest)
    else if (looked === 'not sure') wait(calm)
  }
  const watcher = watch([...roots], {
    ignoreInitial: true,
    ignored: (path) => !isWatched(path, roots, paths),
  })
  watcher.on('all', () => {
    writes++
    if (!busy) wait(rest)
  })
  await new Promise<void>((resolve) => watcher.once('ready', () => resolve()))
  return {
    close: async () => {
      if (timer) clearTimeout(timer)
      await watcher.close()
    },
  }
}
