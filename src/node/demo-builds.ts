import { createHash } from 'node:crypto'
import { existsSync } from 'node:fs'
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { dirname, join, resolve, sep } from 'node:path'
import { fileURLToPath } from 'node:url'
import { strToU8, unzipSync, zipSync } from 'fflate'
import { FolderError } from '../core/model/errors.ts'
import { filesBelow } from '../core/model/folder.ts'
import { DiskFolder } from './disk-folder.ts'
import { packageRoot } from './package-root.ts'

/** In a checkout the builds stand unpacked; the package holds them in one archive, in which equal files are kept once. */
const unpacked = fileURLToPath(new URL('dist/demo/', packageRoot))
const archive = new URL('dist/demo.zip', packageRoot)
const list = 'files.json'

/**
 * Does something with the builds of the demo site, which are cleared away afterwards.
 * @throws {FolderError} when they were not made
 */
export async function withDemoBuilds<T>(use: (directory: string) => Promise<T>): Promise<T> {
  if (existsSync(join(unpacked, 'demo.json'))) return use(unpacked)
  const directory = await mkdtemp(join(tmpdir(), 'wardoscope-demo-'))
  try {
    await unpack(directory)
    return await use(directory)
  } finally {
    await rm(directory, { recursive: true, force: true })
  }
}

async function unpack(directory: string): Promise<void> {
  const bytes = await readFile(archive).catch(() => null)
  if (bytes === null)
    throw new FolderError(
      'missing',
      'The demo builds are not there. In a checkout, make them with: npm run demo:build',
    )
  const { [list]: names, ...contents } = unzipSync(bytes)
  const files = JSON.parse(new TextDecoder().decode(names)) as Record<string, string>
  for (const [path, digest] of Object.entries(files)) {
    const file = resolve(directory, path)
    const content = contents[digest]
    if (!file.startsWith(directory + sep) || content === undefined) continue
    await mkdir(dirname(file), { recursive: true })
    await writeFile(file, content)
  }
}

/** Packs a directory of demo builds. */
export async function packDemoBuilds(directory: string): Promise<Uint8Array> {
  const folder = await DiskFolder.open(directory)
  const names: Record<string, string> = {}
  const contents: Record<string, Uint8Array> = {}
  for (const path of await filesBelow(folder, () => true)) {
    const bytes = await folder.read(path)
    const digest = createHash('sha256').update(bytes).digest('hex')
    names[path] = digest
    contents[digest] = bytes
  }
  return zipSync({ [list]: strToU8(JSON.stringify(names)), ...contents }, { level: 9 })
}
