// Changes a project as a variant says.
import { mkdir, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'

export async function apply(
  home,
  { remove = [], removeLike = [], replace = {}, write = {}, prepend = {}, append = {} },
) {
  for (const path of remove) await rm(join(home, path), { recursive: true })
  for (const pattern of removeLike) for (const path of await named(home, pattern)) await rm(join(home, path))
  for (const [path, text] of Object.entries(write)) {
    await mkdir(dirname(join(home, path)), { recursive: true })
    await writeFile(join(home, path), text)
  }
  for (const [path, changes] of Object.entries(replace)) {
    let text = await readFile(join(home, path), 'utf8')
    for (const [before, after] of Object.entries(changes)) {
      if (!text.includes(before)) throw new Error(`${path} does not hold ${JSON.stringify(before)}`)
      text = text.replaceAll(before, after)
    }
    await writeFile(join(home, path), text)
  }
  for (const [pattern, text] of Object.entries(append)) {
    for (const path of await named(home, pattern))
      await writeFile(join(home, path), (await readFile(join(home, path), 'utf8')) + text)
  }
  for (const [path, text] of Object.entries(prepend)) {
    await writeFile(join(home, path), text + (await readFile(join(home, path), 'utf8')))
  }
}

/** The files that are named like a pattern: builds name theirs by hashes. */
async function named(home, pattern) {
  const paths = await readdir(home, { recursive: true })
  const fitting = paths.filter((path) => !path.startsWith('node_modules') && new RegExp(pattern).test(path))
  if (fitting.length === 0) throw new Error(`no file is named like ${pattern}`)
  return fitting
}
