/** Wardoscope on Node: folders on disk. */
export { DiskFolder } from './disk-folder.ts'
