// The least that any look at a repository costs: every directory listed, none of its dependencies entered.
import { readdirSync } from 'node:fs'

const enter = (directory) => {
  for (const entry of readdirSync(directory, { withFileTypes: true }))
    if (entry.isDirectory() && entry.name !== 'node_modules') enter(`${directory}/${entry.name}`)
}
enter(process.argv[2])
