import { grouped } from '../core/model/text.ts'
import type { TextStream } from './streams.ts'

/** A line that tells how far long work has come. On anything but a terminal it says nothing. */
export interface Progress {
  readonly report: (done: number, of?: number) => void
  /** Another part of the work has begun. */
  readonly stage: (what: string) => void
  readonly end: () => void
}

/** Work shorter than this needs no progress; milliseconds. */
const patience = 400
const every = 100

/** Starts a progress line on a stream. */
export function progressOn(stream: TextStream, what: string): Progress {
  if (stream.isTTY !== true) return { report: () => {}, stage: () => {}, end: () => {} }
  const start = Date.now()
  let shown = start
  let label = what
  let written = false
  const write = (text: string): void => {
    const now = Date.now()
    if (now - start < patience || now - shown < every) return
    shown = now
    written = true
    stream.write(`\r\u001b[2K${text}`)
  }
  return {
    report: (done, of) => write(`${label}: ${grouped(done)}${of === undefined ? '' : ` of ${grouped(of)}`}`),
    stage: (next) => {
      label = next
      shown = 0
      write(label)
    },
    end() {
      if (written) stream.write('\r\u001b[2K')
    },
  }
}
