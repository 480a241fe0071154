import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { join } from 'node:path'

/**
 * A directory of the user's cache with packages that only a test needs, installed from the registry when they are not
 * there. Its `node_modules` is what a project of a test links to.
 */
export function packagesWith(name: string, dependencies: Readonly<Record<string, string>>): string {
  const cache = join(process.env.XDG_CACHE_HOME ?? join(homedir(), '.cache'), 'wardoscope-test')
  const wanted = JSON.stringify(dependencies)
  const home = join(cache, `${name}-${createHash('sha256').update(wanted).digest('hex').slice(0, 12)}`)
  if (existsSync(join(home, 'done'))) return home
  rmSync(home, { recursive: true, force: true })
  mkdirSync(home, { recursive: true })
  writeFileSync(join(home, 'package.json'), JSON.stringify({ private: true, type: 'module', dependencies }))
  execFileSync('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: home,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  writeFileSync(join(home, 'done'), '')
  return home
}
