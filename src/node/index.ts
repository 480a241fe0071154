/**
 * Wardoscope on Node: folders on disk, reading them in several threads, and what a project's configuration says.
 * @module wardoscope/node
 */
export { cacheDirectory } from './cache-directory.ts'
export { type AllOptions, type CheckedRepository, checkAllProjects } from './check-all.ts'
export { checkPath, type PathOptions, type Prepared, preparePath } from './check-path.ts'
export type { OwnCode } from './configuration/load.ts'
export type { ProjectOptions, Said } from './configuration/project-options.ts'
export { DiskFolder } from './disk-folder.ts'
export { explanationOf, explanationsOf } from './explanations.ts'
export { historyBelow } from './git/history.ts'
export { parallelReader, type ReadingOptions } from './reading/parallel-reader.ts'
export { version } from './version.ts'
export { compressor } from './weighing/compressor.ts'
