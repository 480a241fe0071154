import { presetNamed } from '../../../src/core/host/presets.ts'
import { folderOfFiles } from '../../../src/core/model/blob-folder.ts'
import { FolderError, UsageError } from '../../../src/core/model/errors.ts'
import type { FileFacts } from '../../../src/core/model/facts.ts'
import { type Folder, filesBelow } from '../../../src/core/model/folder.ts'
import { parseSite } from '../../../src/core/model/site.ts'
import { folderOfZip } from '../../../src/core/model/zip-folder.ts'
import { examine } from '../../../src/core/pipeline/check.ts'
import { open, type Target } from '../../../src/core/pipeline/open.ts'
import { readBuild } from '../../../src/core/pipeline/read-build.ts'
import { namedAddresses } from '../../../src/core/project/addresses.ts'
import { type Release, releaseOf, type Shipped } from '../../../src/core/release/release.ts'
import { compressor } from './compress.ts'
import { explanations } from './explanations.ts'
import type { PlacedFile, Reply, Request, Serving, Side } from './messages.ts'

/** A folder that was read. It is checked as often as somebody likes without being read again. */
interface Looked {
  readonly target: Target
  readonly facts: readonly FileFacts[]
}

const looked = new Map<Side, Looked>()

/** Folders whose files are still coming. */
const given = new Map<Side, { readonly label: string; readonly files: PlacedFile[] }>()

/** What ends the reading of a folder that is under way. */
const reading = new Map<Side, AbortController>()

function stop(side: Side): void {
  given.delete(side)
  reading.get(side)?.abort()
}

function reply(message: Reply): void {
  postMessage(message)
}

addEventListener('message', async ({ data }: MessageEvent<Request>) => {
  try {
    if (data.kind === 'begin') given.set(data.side, { label: data.label, files: [] })
    else if (data.kind === 'files') given.get(data.side)?.files.push(...data.files)
    else if (data.kind === 'read') await read(data.side)
    else if (data.kind === 'check') await check(data.serving)
    else if (data.kind === 'stop') stop(data.side)
    else looked.delete(data.side)
  } catch (error) {
    // Whoever stopped it knows.
    if (error instanceof DOMException && error.name === 'AbortError') return
    const message = inWords(error)
    reply(data.kind === 'read' ? { kind: 'failed', side: data.side, message } : { kind: 'refused', message })
  }
})

/** What somebody can fix is reported as it is; anything else is ours. */
function inWords(error: unknown): string {
  if (error instanceof FolderError || error instanceof UsageError) return error.message
  return `Something went wrong that is a defect of ours: ${error instanceof Error ? error.message : String(error)}`
}

async function read(side: Side): Promise<void> {
  const { label, files } = given.get(side) ?? { label: 'folder', files: [] }
  given.delete(side)
  looked.delete(side)
  const folder = await folderOf(label, files)
  const found = await open(folder, null)
  const target = found
  const ending = new AbortController()
  reading.set(side, ending)
  const of = target.build ? (await filesBelow(target.build, () => true)).length : 0
  const step = Math.max(1, Math.floor(of / 100))
  const facts = await readBuild(target, {
    signal: ending.signal,
    onProgress: (done) => {
      if (done % step === 0) reply({ kind: 'progress', side, done, of })
    },
  })
  looked.set(side, { target, facts })
  const build = { folder: target.build, path: target.path }
  const [named] = await namedAddresses(target.project, build, target.survey)
  const proposal = named && named.kind !== 'repository' ? named.value : null
  reply({ kind: 'ready', side, files: facts.length, proposal })
}

async function folderOf(label: string, files: readonly PlacedFile[]): Promise<Folder> {
  const [first] = files
  if (files.length === 1 && first && /\.zip$/i.test(first.path)) {
    return folderOfZip(new Uint8Array(await first.file.arrayBuffer()), label)
  }
  return folderOfFiles(files, label)
}

async function check({ site, host, routes }: Serving): Promise<void> {
  const now = looked.get('now')
  if (!now) return
  const before = looked.get('before')
  const options = {
    site: site.trim() === '' ? null : parseSite(site.trim()),
    host: host === '' ? null : presetNamed(host),
    routes,
    compress: compressor,
  }
  const earlier = before ? await releaseAt(before, options) : null
  const report = await examine(now.target, now.facts, { ...options, earlier })
  const made = `${new Date().toISOString().slice(0, 16).replace('T', ' ')} UTC`
  const payload = {
    report,
    explanations,
    pictures: {},
    version: 'at the desk',
    made,
  }
  reply({ kind: 'checked', payload })
}

async function releaseAt(
  { target, facts }: Looked,
  options: Parameters<typeof examine>[2],
): Promise<Release> {
  let shipped: Shipped | null = null
  await examine(target, facts, {
    ...options,
    onShipped: (each) => {
      shipped = each
    },
  })
  if (shipped === null) throw new FolderError('unreadable', 'The folder from before could not be looked at.')
  return releaseOf(shipped)
}
