import { guarded } from './guard.ts'
import { main } from './main.ts'
import { exit } from './streams.ts'

let lost = false

// A reader that has seen enough, as head does, closes the pipe: the verdict is still worth its exit status. What could not be
// written for any other reason is lost, and no verdict without its result is true.
for (const [stream, name] of [
  [process.stdout, 'result'],
  [process.stderr, 'messages'],
] as const) {
  stream.on('error', ({ code }: NodeJS.ErrnoException) => {
    if (code === 'EPIPE' || lost) return
    lost = true
    process.exitCode = exit.unseen
    const why = code === 'ENOSPC' ? 'the disk is full' : code
    if (stream === process.stdout)
      process.stderr.write(`wardoscope: The ${name} could not be written: ${why}.\n`)
  })
}

void main(process.argv.slice(2), { out: guarded(process.stdout), err: guarded(process.stderr) }).then(
  (status) => {
    process.exitCode = lost ? exit.unseen : status
  },
)
