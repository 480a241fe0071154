import { main } from './main.ts'

// A reader that has seen enough, as head does, closes the pipe; the verdict is still worth its exit status.
for (const stream of [process.stdout, process.stderr]) {
  stream.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'EPIPE') throw error
  })
}

void main(process.argv.slice(2), { out: process.stdout, err: process.stderr }).then((status) => {
  process.exitCode = status
})
