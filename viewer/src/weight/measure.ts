/** How sizes are reported: compressed as hosts send them, or as the files are in the folder. */
export type Measure = 'gzip' | 'brotli' | 'bytes'

export interface Sizes {
  readonly bytes: number
  readonly gzip: number | null
  readonly brotli: number | null
}

export function measured(sizes: Sizes, measure: Measure): number {
  return sizes[measure] ?? sizes.bytes
}
