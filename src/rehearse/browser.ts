import { existsSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import type { Browser } from 'playwright-core'
import { FolderError } from '../core/model/errors.ts'

/** Where browsers of the Chromium family are installed on Linux, macOS and Windows. */
function places(): string[] {
  const windows = [process.env.PROGRAMFILES, process.env['PROGRAMFILES(X86)'], process.env.LOCALAPPDATA]
  return [
    ...(process.env.PATH ?? '')
      .split(':')
      .flatMap((directory) =>
        ['chromium', 'chromium-browser', 'google-chrome', 'google-chrome-stable', 'microsoft-edge'].map(
          (name) => join(directory, name),
        ),
      ),
    '/Applications/Chromium.app/Contents/MacOS/Chromium',
    '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
    '/Applications/Microsoft Edge.app/Contents/MacOS/Microsoft Edge',
    ...windows.flatMap((directory) =>
      directory === undefined
        ? []
        : [
            join(directory, 'Google/Chrome/Application/chrome.exe'),
            join(directory, 'Microsoft/Edge/Application/msedge.exe'),
          ],
    ),
  ]
}

/** The browser's program: the one that was named, or the first that is found. @throws {FolderError} when there is none. */
export function browserProgram(named: string | null): string {
  const found =
    named === null ? places().find((path) => existsSync(path)) : existsSync(named) ? named : undefined
  if (found !== undefined) return found
  throw new FolderError(
    'missing',
    named === null
      ? 'No browser of the Chromium family was found. Install one, or name its program: --browser /path/to/chromium'
      : `There is no browser at ${named}.`,
  )
}

/** The browser's driver, an optional peer. Required, not imported: the program is compiled where a dynamic import can't be. */
function driver(): typeof import('playwright-core') {
  try {
    return createRequire(import.meta.url)('playwright-core')
  } catch {
    throw new FolderError(
      'missing',
      'Visits in a browser need the package playwright-core. Install it beside wardoscope.',
    )
  }
}

/**
 * Starts a browser that calls nobody by itself; unless `online`, it can't even look up a name.
 * @throws {FolderError} when playwright-core is not installed, or the browser does not start.
 */
export async function startBrowser(named: string | null, online = false): Promise<Browser> {
  const executablePath = browserProgram(named)
  const quiet = [
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
    '--disable-gpu',
  ]
  const cut = online ? [] : ['--host-resolver-rules=MAP * ~NOTFOUND']
  const args = [...quiet, ...cut, ...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])]
  const { chromium } = driver()
  try {
    return await chromium.launch({
      executablePath,
      args,
      handleSIGINT: false,
      handleSIGTERM: false,
      handleSIGHUP: false,
    })
  } catch (error) {
    const [first = ''] = error instanceof Error ? error.message.split('\n') : []
    throw new FolderError('missing', `The browser at ${executablePath} did not start: ${first}`)
  }
}
