// The least that any look at a folder's content costs: every byte read and hashed, in one thread.
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'

const enter = (directory) => {
  for (const entry of readdirSync(directory, { withFileTypes: true })) {
    const path = `${directory}/${entry.name}`
    if (entry.isDirectory()) enter(path)
    else createHash('sha256').update(readFileSync(path)).digest('hex')
  }
}
enter(process.argv[2])
