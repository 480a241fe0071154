import { environmentStates } from '../checks/environment.ts'
import { checkedFolder, type Examined, type Served, type Surveyed } from '../checks/evidence.ts'
import { endpointsIn } from '../endpoints/endpoints.ts'
import { importersIn } from '../endpoints/importers.ts'
import { followNames } from '../endpoints/named-files.ts'
import { Scripts } from '../endpoints/scripts.ts'
import { unmetNames } from '../endpoints/unmet-names.ts'
import { frameworks } from '../frameworks/index.ts'
import { FolderError } from '../model/errors.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Folder } from '../model/folder.ts'
import { placeAt } from '../model/reading.ts'
import { decode } from '../model/text.ts'
import { isBehindHash } from '../output/script/route-tables.ts'
import { withNeededFiles } from '../project/needed-files.ts'
import type { Survey } from '../project/survey.ts'
import type { Output } from '../requests/output.ts'
import { requestAll } from '../requests/request.ts'
import { isShell, type KnownRoute, type Route } from '../requests/routes.ts'
import type { Target } from './open.ts'
import type { CheckOptions } from './options.ts'

/** The build as the checks look at it, before anything is tried out. */
export type ExaminedOutput = Omit<Examined, 'delivery'> & {
  /** Requests everything once more, with routes that were found since. */
  readonly requestedWith: (more: readonly Route[]) => Examined['requested']
}

/** Requests all that the build holds from its host, and follows variables and addresses of other origins. */
export async function examineOutput(
  { build, path, values }: Target,
  output: Output,
  { site, host }: Served,
  { survey, sources }: Surveyed,
  options: CheckOptions,
): Promise<ExaminedOutput> {
  const facts = withNeededFiles(output.facts, frameworkOf(survey))
  const named = (options.routes ?? []).map((route): Route => ({ path: route, from: { by: 'named by hand' } }))
  const known = survey.definition === null ? await routesInOutput(facts, build) : survey.routes
  const readFile = (file: string): Promise<Uint8Array | null> => readIfThere(build, file)
  const paths = facts.filter(({ kind }) => kind === 'script').map((each) => each.path)
  const scripts = new Scripts(readFile, paths, importersIn(facts), options.answers ?? null)
  const uses = await followNames(site, { ...output, facts }, sources, scripts)
  options.onStage?.('asking the host for what pages request')
  const requestedWith = (more: readonly Route[]): Examined['requested'] =>
    requestAll(
      host,
      site,
      { ...output, facts },
      { named: [...named, ...more], known, samples: options.samples ?? {} },
      uses,
    )
  const requested = requestedWith([])
  const environment = environmentStates(survey, facts, values)
  const { outside, index } = requested
  const found = await endpointsIn({ site, facts, outside, sources, environment, scripts, index })
  const unmet = await unmetNames(facts, requested.loads, sources, scripts)
  scripts.end()
  const unfollowed = [...scripts.unfollowed]
  const absences = found.filter(({ kind }) => kind === 'absent value')
  const endpoints = found.filter(({ kind }) => kind !== 'absent value')
  const folder = checkedFolder(path, build !== null)
  const followed = { endpoints, absences, unmet, unfollowed }
  return { folder, facts, requested, requestedWith, readFile, environment, ...followed }
}

/** The routes that the scripts of a single page have in their router's tables: of a bare folder nothing else tells them. */
async function routesInOutput(facts: readonly FileFacts[], build: Folder | null): Promise<KnownRoute[]> {
  const pages = facts.filter(({ kind, path }) => kind === 'page' && !isShell(path))
  if (pages.length !== 1 || isBehindHash(facts)) return []
  const found: KnownRoute[] = []
  for (const { path, builtRoutes } of facts) {
    const bytes = builtRoutes && builtRoutes.routes.length > 0 ? await readIfThere(build, path) : null
    const text = bytes && decode(bytes)
    for (const { pattern, offset } of (text !== null && builtRoutes?.routes) || [])
      found.push({ pattern, place: placeAt(path, text ?? '', offset), kind: 'table' })
  }
  return found
}

function frameworkOf({ definition, framework }: Survey): Survey['definition'] {
  return definition ?? frameworks.find(({ name }) => name === framework?.value) ?? null
}

async function readIfThere(build: Folder | null, path: string): Promise<Uint8Array | null> {
  try {
    return build ? await build.read(path) : null
  } catch (error) {
    if (error instanceof FolderError) return null
    throw error
  }
}
