import { byDefault, type Reading } from '../model/reading.ts'
import type { Folded } from '../syntax/value.ts'
import {
  type ConfiguredVariable,
  defineFramework,
  type FrameworkReadings,
  type FrameworkTable,
} from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { leavesOf, mapped, text } from './readings.ts'
import { withinRoot, withinVite } from './vite.ts'

/** The function of the mode that makes an application's settings. Its page carries them to the browser. */
const settingsFiles = ['js', 'cjs', 'mjs', 'ts'].map((ending) => `config/environment.${ending}`)

/** Its variables are members of this object of the settings. */
const ownPrefix = 'APP.'

const shared = {
  router: 'history',
  signs: { page: [/<meta name="[\w@./-]+\/config\/environment" content="%7B/] },
} as const satisfies Partial<FrameworkTable>

/** Ember with its own builder. Checked against 5.12. */
export const ember = defineFramework({
  ...shared,
  name: 'ember',
  title: 'Ember',
  over: ['vite'],
  markers: ['ember-source', 'ember-cli'],
  configFiles: settingsFiles,
  configOptions: [],
  commands: ['ember build'],
  configArgument: (mode) => mode,
  settings: {
    publishDirectory: { options: ['output-path', 'o'], default: 'dist' },
    basePath: { config: ['rootURL'], default: '/' },
    mode: { options: ['environment', 'e'] },
    prefixes: [ownPrefix],
  },
  refine: async (project) => {
    const devProxy = await proxyOf(project)
    return { ...fromSettings(project.config?.value ?? null), ...(devProxy && { devProxy }) }
  },
  fixes: { setBase: (base) => `rootURL: '${base}',`, environmentFile: 'config/environment.js' },
})

/** Ember with Vite. Checked against 7.3. Its files are below the base path of Vite, its routes below the root of Ember. */
export const emberVite = defineFramework({
  ...withinVite,
  ...shared,
  name: 'ember-vite',
  title: 'Ember with Vite',
  over: ['vite', 'ember'],
  markers: ['@embroider/vite'],
  commands: ['vite build'],
  environmentObjects: ['import.meta.env'],
  refine: async (project, table) => {
    const readings = withinRoot(project, table)
    const own = await ownSettings(project, readings.mode.value ?? 'production')
    const base = text(own, 'rootURL') ?? byDefault('/', "Ember's default")
    return {
      ...readings,
      ...fromSettings(own),
      prefixes: mapped(readings.prefixes, (prefixes) => [ownPrefix, ...prefixes]),
      routerBase: { base, write: (path) => `rootURL: '${path}',` },
    }
  },
  fixes: { setBase: (base) => `base: '${base}',`, environmentFile: 'config/environment.js' },
})

/** The service that the development server sends whatever it has no file for: one for all paths. */
async function proxyOf({ fold, manifest }: ProjectSources): Promise<Reading<string[]> | null> {
  const inFile = text(await fold('.ember-cli'), 'proxy')
  if (inFile?.value) return { ...inFile, value: ['/'] }
  const scripts = [...(manifest?.texts('scripts').values() ?? [])]
  const serving = scripts.find(({ value }) =>
    /\bember\s+s(?:erve|erver)?\b.*\s--?(?:proxy|pr|pxy)\b/.test(value ?? ''),
  )
  return serving ? { ...serving, value: ['/'] } : null
}

async function ownSettings({ fold }: ProjectSources, mode: string): Promise<Folded | null> {
  for (const file of settingsFiles) {
    const found = await fold(file, 'default', mode)
    if (found) return found
  }
  return null
}

function fromSettings(settings: Folded | null): Partial<FrameworkReadings> {
  const location = text(settings, 'locationType')
  return {
    configured: variablesIn(settings),
    ...(location?.value === 'hash' && { router: { ...location, value: 'hash' as const } }),
  }
}

/** What the application is given, by the name of the object that holds it. */
function variablesIn(settings: Folded | null): ConfiguredVariable[] {
  const own = settings?.kind === 'object' ? settings.members.get('APP') : undefined
  return leavesOf(own ?? null).map(({ path, value, at, siblings, takes }) => ({
    name: takes ?? `${ownPrefix}${path.join('.')}`,
    members: ['APP', ...path],
    place: at,
    siblings,
    value,
    development: null,
    missing: ['undefined'],
    ...(takes !== undefined && { passedOn: true as const }),
  }))
}
