import type { Payload } from '../../../src/core/report/formats/html.ts'

/** Which of the two folders: the one to look at, or the one that shipped before. */
export type Side = 'now' | 'before'

/** A file with its path below what was put on the desk. */
export interface PlacedFile {
  readonly path: string
  readonly file: File
}

/** How the folder is served. */
export interface Serving {
  /** Empty for the base path that the build expects. */
  readonly site: string
  readonly host: string
  readonly routes: readonly string[]
}

/** What the page requests from its worker. */
export type Request =
  | { readonly kind: 'begin'; readonly side: Side; readonly label: string }
  | { readonly kind: 'files'; readonly side: Side; readonly files: readonly PlacedFile[] }
  | { readonly kind: 'read'; readonly side: Side }
  | { readonly kind: 'check'; readonly serving: Serving }
  | { readonly kind: 'forget'; readonly side: Side }
  /** Ends the reading of a folder. */
  | { readonly kind: 'stop'; readonly side: Side }

/** What the worker answers. */
export type Reply =
  | { readonly kind: 'progress'; readonly side: Side; readonly done: number; readonly of: number }
  | { readonly kind: 'ready'; readonly side: Side; readonly files: number; readonly proposal: string | null }
  | { readonly kind: 'checked'; readonly payload: Payload }
  | { readonly kind: 'failed'; readonly side: Side; readonly message: string }
  | { readonly kind: 'refused'; readonly message: string }
