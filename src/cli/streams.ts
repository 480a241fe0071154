/** Where a command reads and writes. Findings go to `out`, progress and complaints to `err`. */
export interface Streams {
  readonly out: TextStream
  readonly err: TextStream
}

/** A stream as far as the commands need it. */
export interface TextStream {
  write(text: string): unknown
  readonly isTTY?: boolean
  readonly columns?: number
}

/** Exit statuses. */
export const exit = { clear: 0, held: 1, usage: 2, unseen: 3 } as const

/** A command's exit status. */
export type ExitStatus = (typeof exit)[keyof typeof exit]
