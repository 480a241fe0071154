import type { BaseSetting, FrameworkReadings } from '../frameworks/framework.ts'
import type { Manifest, ProjectSources } from '../frameworks/project-sources.ts'
import { proxyPaths } from '../frameworks/readings.ts'
import type { Folded } from '../syntax/value.ts'

/** Files that builders are configured in, by the forms of their names. */
const configFile =
  /^(?:[\w.-]+[.-]config\.[cm]?[jt]s|\.[\w-]+rc\.(?:[cm]?[jt]s|json)|_?config\.(?:ya?ml|toml|json))$/

/** What builders call the setting. */
const nameOfBase =
  /^(?:root|homepage|public_?(?:path|url)|(?:base|path|asset)_?(?:path|url|prefix)?|url_?prefix|root_?(?:path|url)|router_?base)$/i

const mostFiles = 20
const deepest = 5

/** What the settings of a builder that is not known tell by their names and values. */
interface TellingSettings {
  /** What may be the base path. Whether it is, what the build asks for tells: it starts at that value. */
  readonly baseSettings: readonly BaseSetting[]
  /** What its development server forwards. */
  readonly devProxy: FrameworkReadings['devProxy'] | null
}

/** Reads the files that builders are configured in, whichever this one is. */
export async function tellingSettings({
  names,
  fold,
}: Pick<ProjectSources, 'names' | 'fold'>): Promise<TellingSettings> {
  const files = [...names].filter((name) => configFile.test(name)).sort()
  if (names.has('config')) files.push('config/config.ts', 'config/config.js')
  const found: Found = { bases: [], proxies: [] }
  for (const file of files.slice(0, mostFiles)) collect(await fold(file), found)
  return { baseSettings: found.bases, devProxy: found.proxies[0] ?? null }
}

/** The configuration of the program that the build script calls, by its name: `shear.config.js` of `shear build`. */
export function namedConfigFile(manifest: Manifest, names: ReadonlySet<string>): string | null {
  const words =
    manifest
      .texts('scripts')
      .get('build')
      ?.value.match(/[a-z][\w-]{2,}/g) ?? []
  return (
    [...names].sort().find((name) => configFile.test(name) && words.some((word) => name.includes(word))) ??
    null
  )
}

interface Found {
  readonly bases: BaseSetting[]
  readonly proxies: FrameworkReadings['devProxy'][]
}

function collect(value: Folded | null, found: Found, depth = 0): void {
  if (value?.kind === 'call') for (const each of value.args) collect(each, found, depth + 1)
  if (value?.kind !== 'object' || depth > deepest) return
  for (const [name, each] of value.members) {
    const proxied = name === 'proxy' ? proxyPaths(each) : null
    if (proxied?.value?.some((path) => /^[\^/]/.test(path))) found.proxies.push(proxied)
    if (each.kind !== 'value') collect(each, found, depth + 1)
    else if (typeof each.value === 'string' && mayBeBase(name, each.value))
      found.bases.push({ name, value: each.value, at: each.at })
  }
}

/** An empty base is the root; an empty root or home page may be anything. */
function mayBeBase(name: string, value: string): boolean {
  return value === '' ? /^base_?(?:path|url)$/i.test(name) : value.startsWith('/') && nameOfBase.test(name)
}
