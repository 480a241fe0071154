import type { Manifest } from '../frameworks/project-sources.ts'
import { byDefault, describeOrigin, inferred, type Reading, stated } from '../model/reading.ts'

export type PackageManager = 'npm' | 'yarn' | 'pnpm' | 'bun'

/** Lockfiles, and whose they are. */
const lockfiles: readonly (readonly [string, PackageManager])[] = [
  ['package-lock.json', 'npm'],
  ['npm-shrinkwrap.json', 'npm'],
  ['pnpm-lock.yaml', 'pnpm'],
  ['yarn.lock', 'yarn'],
  ['bun.lock', 'bun'],
  ['bun.lockb', 'bun'],
]

/** Their names. */
export const lockfileNames: readonly string[] = lockfiles.map(([file]) => file)

/** The package manager: from `packageManager` in the project's or the repository's manifest, else a lockfile, else npm. */
export function readPackageManager(
  manifests: readonly (Manifest | null)[],
  names: ReadonlySet<string>,
): Reading<PackageManager> {
  const said = manifests
    .map((manifest) => manifest?.text('packageManager'))
    .find((reading) => reading != null)
  const name = /^(npm|yarn|pnpm|bun)@/.exec(said?.value ?? '')?.[1]
  if (said && 'file' in said.from && isPackageManager(name)) return stated(name, said.from)
  const lockfile = lockfiles.find(([file]) => names.has(file))
  if (lockfile) return inferred(lockfile[1], { file: lockfile[0], line: 1, column: 1 })
  return byDefault('npm', "Node's default")
}

function isPackageManager(name: string | undefined): name is PackageManager {
  return name === 'npm' || name === 'yarn' || name === 'pnpm' || name === 'bun'
}

/** What a person types to run a script of the manifest. */
export function runScript(manager: PackageManager, script: string): string {
  return manager === 'yarn' ? `yarn ${script}` : `${manager} run ${script}`
}

/** What installs exactly what the lockfile says, as a build machine should; without a lockfile, what the manifest says. */
export function installCommand(manager: PackageManager, names: ReadonlySet<string>): string {
  if (!lockfiles.some(([file, owner]) => owner === manager && names.has(file))) return `${manager} install`
  return manager === 'npm' ? 'npm ci' : `${manager} install --frozen-lockfile`
}

/** Lockfiles of several package managers side by side: one of them is out of date. Null when there is no doubt. */
export function lockfileRemark(
  { value, from }: Reading<PackageManager>,
  names: ReadonlySet<string>,
): string | null {
  const found = lockfiles.filter(([file]) => names.has(file))
  if (new Set(found.map(([, owner]) => owner)).size < 2) return null
  const list = found.map(([file]) => file).join(' and ')
  return `${list} are side by side, and one of them is out of date: ${value} is taken, from ${describeOrigin(from)}.`
}
