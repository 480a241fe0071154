// Keeps what a variant's build wrote, so that a change of the checks is tried on all of them in seconds.
import { createHash } from 'node:crypto'
import { cp, mkdir, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises'
import { join } from 'node:path'

/** Caches of the builders themselves: large, and no part of what ships. */
const leftOut = new Set(['node_modules', '.parcel-cache', '.cache', '.angular'])

/**
 * Puts a kept build in place.
 * @returns the seconds it took to build, or null when these sources were not built before
 */
export async function restoreBuilt(kept, clean) {
  const at = await placeOf(kept)
  const seconds = await readFile(join(at, 'seconds'), 'utf8').catch(() => null)
  if (seconds === null) return null
  await clean(kept.home)
  await cp(join(at, 'files'), kept.home, copying)
  return Number(seconds)
}

/** Keeps the project as it is after the build. */
export async function keepBuilt(kept, seconds) {
  const at = await placeOf(kept)
  await rm(at, { recursive: true, force: true })
  await mkdir(join(at, 'files'), { recursive: true })
  for (const name of await readdir(kept.home)) {
    if (!leftOut.has(name)) await cp(join(kept.home, name), join(at, 'files', name), copying)
  }
  await writeFile(join(at, 'seconds'), String(seconds))
}

const copying = {
  recursive: true,
  preserveTimestamps: true,
  verbatimSymlinks: true,
  filter: (path) => !/\.next\/cache|\.nuxt\/|\.astro\//.test(path),
}

/** A place named by all that decides what a build writes. */
export async function placeOf({ store, sources, change, command }) {
  const { remove, removeLike, replace, write, prepend, append, build, environment } = change
  const hash = createHash('sha256').update(
    JSON.stringify({
      remove,
      removeLike,
      replace,
      write,
      prepend,
      append,
      build,
      environment,
      command,
      node: process.version,
    }),
  )
  for (const path of (await readdir(sources, { recursive: true })).sort()) {
    if (!(await stat(join(sources, path))).isFile()) continue
    hash.update(path).update(await readFile(join(sources, path)))
  }
  return join(store, hash.digest('hex').slice(0, 16))
}
