import { parentPort, workerData } from 'node:worker_threads'
import { within } from '../../core/model/folder.ts'
import type { Search } from '../../core/model/search.ts'
import { DiskFolder } from '../disk-folder.ts'
import { BatchReader } from './batch.ts'

/** What a worker is started with. */
export interface WorkerTask {
  readonly root: string
  readonly directory: string
  readonly search: Search
  readonly known: readonly string[] | null
}

const { root, directory, search, known } = workerData as WorkerTask
const ready = DiskFolder.open(root).then(
  (folder) => new BatchReader(within(folder, directory), search, known && new Set(known)),
)

parentPort?.on('message', async (paths: readonly string[]) => {
  const batch = await (await ready).read(paths)
  parentPort?.postMessage(batch, [batch.numbers.buffer])
})
