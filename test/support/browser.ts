import { existsSync } from 'node:fs'
import { type Browser, chromium } from 'playwright-core'

/** Debian's Chromium, where it is installed. */
const program = ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find((path) => existsSync(path))

export const hasBrowser = program !== undefined

/** A browser that calls nobody by itself. */
export function startBrowser(): Promise<Browser> {
  if (program === undefined) throw new Error('There is no Chromium. Install the package chromium.')
  const quiet = [
    '--disable-background-networking',
    '--disable-component-update',
    '--no-first-run',
    '--disable-gpu',
  ]
  return chromium.launch({
    executablePath: program,
    args: [...quiet, ...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])],
  })
}
