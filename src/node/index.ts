/** Wardoscope on Node: folders on disk, and reading them in several threads. */
export { cacheDirectory } from './cache-directory.ts'
export { DiskFolder } from './disk-folder.ts'
export { historyBelow } from './git/history.ts'
export { parallelReader, type ReadingOptions } from './reading/parallel-reader.ts'
