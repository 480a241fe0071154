import { grouped } from '../core/model/text.ts'
import type { TextStream } from './streams.ts'

/** A line that tells how far long work has come. On anything but a terminal it says nothing. */
export interface Progress {
  readonly report: (done: number) => void
  readonly end: () => void
}

/** Work shorter than this needs no progress; milliseconds. */
const patience = 400
const every = 100

/** Starts a progress line on a stream. */
export function progressOn(stream: TextStream, what: string): Progress {
  if (stream.isTTY !== true) return { report: () => {}, end: () => {} }
  const start = Date.now()
  let shown = start
  let written = false
  return {
    report(done) {
      const now = Date.now()
      if (now - start < patience || now - shown < every) return
      shown = now
      written = true
      stream.write(`\r${what}: ${grouped(done)}`)
    },
    end() {
      if (written) stream.write('\r\u001b[2K')
    },
  }
}
