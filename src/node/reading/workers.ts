import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import type { Batch } from './batch.ts'
import type { WorkerTask } from './worker.ts'

/** Files that are sent to a worker together: enough that sending costs nothing, few enough that all have work. */
const mostInBatch = 64
/** Bytes; a batch that has as many is sent. */
const mostBytes = 1_000_000
const mostWorkers = 8

/** A file to read. */
export interface SizedPath {
  readonly path: string
  /** Bytes. */
  readonly size: number
}

/**
 * Reads files in worker threads, and passes each batch as it comes.
 * @throws the signal's reason when it is aborted; the threads are ended
 */
export async function readInWorkers(
  script: string,
  workerData: WorkerTask,
  files: readonly SizedPath[],
  onBatch: (batch: Batch) => void,
  signal?: AbortSignal,
): Promise<void> {
  const count = Math.max(1, Math.min(availableParallelism(), mostWorkers, Math.ceil(files.length / 4)))
  const workers = Array.from({ length: count }, () => new Worker(script, { workerData }))
  const take = batchesOf(files, count)
  try {
    await Promise.all(workers.map((worker) => work(worker, take, onBatch, signal)))
  } finally {
    await Promise.all(workers.map((worker) => worker.terminate()))
  }
}

type Take = () => readonly string[] | null

/** Large files go first and alone, so that no worker is left with one at the end. */
function batchesOf(files: readonly SizedPath[], workers: number): Take {
  const ordered = [...files].sort((a, b) => b.size - a.size)
  const total = ordered.reduce((sum, { size }) => sum + size, 0)
  const most = Math.min(mostBytes, total / (workers * 8))
  let next = 0
  return () => {
    const batch: string[] = []
    let bytes = 0
    while (next < ordered.length && batch.length < mostInBatch && (bytes === 0 || bytes < most)) {
      const { path = '', size = 0 } = ordered[next++] ?? {}
      batch.push(path)
      bytes += Math.max(1, size)
    }
    return batch.length > 0 ? batch : null
  }
}

/** Keeps two batches with a worker, so that it never waits for the next; ends when all are done. */
function work(
  worker: Worker,
  take: Take,
  onBatch: (batch: Batch) => void,
  signal: AbortSignal | undefined,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const end = (): void => reject(signal?.reason)
    if (signal?.aborted) end()
    signal?.addEventListener('abort', end, { once: true })
    let waiting = 0
    const send = (): void => {
      const batch = take()
      if (batch) {
        waiting++
        worker.postMessage(batch)
      } else if (waiting === 0) resolve()
    }
    worker.on('message', (batch: Batch) => {
      waiting--
      onBatch(batch)
      send()
    })
    worker.on('error', reject)
    send()
    send()
  })
}
