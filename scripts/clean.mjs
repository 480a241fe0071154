// Removes the compiled program, and leaves the demo builds beside it, which take longer to make.
import { readdirSync, rmSync } from 'node:fs'

const dist = new URL('../dist/', import.meta.url)
for (const name of readNames()) {
  if (name !== 'demo' && name !== 'demo.zip') rmSync(new URL(name, dist), { recursive: true, force: true })
}

function readNames() {
  try {
    return readdirSync(dist)
  } catch {
    return []
  }
}
