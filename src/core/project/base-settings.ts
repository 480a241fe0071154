import type { BaseSetting } from '../frameworks/framework.ts'
import type { ProjectSources } from '../frameworks/project-sources.ts'
import type { Folded } from '../syntax/value.ts'

/** Files that builders are configured in, by the forms of their names. */
const configFile =
  /^(?:[\w.-]+[.-]config\.[cm]?[jt]s|\.[\w-]+rc\.(?:[cm]?[jt]s|json)|_?config\.(?:ya?ml|toml|json))$/

/** What builders call the setting. */
const nameOfBase =
  /^(?:root|homepage|public_?(?:path|url)|(?:base|path|asset)_?(?:path|url|prefix)?|url_?prefix|root_?(?:path|url)|router_?base)$/i

const mostFiles = 20
const deepest = 5

/**
 * Settings of a builder that is not known which by their names and values are the base path. Whether one is, what the build
 * asks for tells: it starts at that value.
 */
export async function baseSettings({
  names,
  fold,
}: Pick<ProjectSources, 'names' | 'fold'>): Promise<BaseSetting[]> {
  const files = [...names].filter((name) => configFile.test(name)).sort()
  if (names.has('config')) files.push('config/config.ts', 'config/config.js')
  const found: BaseSetting[] = []
  for (const file of files.slice(0, mostFiles)) collect(await fold(file), found)
  return found
}

function collect(value: Folded | null, found: BaseSetting[], depth = 0): void {
  if (value?.kind === 'call') for (const each of value.args) collect(each, found, depth + 1)
  if (value?.kind !== 'object' || depth > deepest) return
  for (const [name, each] of value.members) {
    if (each.kind !== 'value') collect(each, found, depth + 1)
    else if (typeof each.value === 'string' && each.value.startsWith('/') && nameOfBase.test(name))
      found.push({ name, value: each.value, at: each.at })
  }
}
