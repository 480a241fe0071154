import { environmentStates } from '../checks/environment.ts'
import { checkedFolder, type Examined, type Served, type Surveyed } from '../checks/evidence.ts'
import { endpointsIn } from '../endpoints/endpoints.ts'
import { frameworks } from '../frameworks/index.ts'
import { FolderError } from '../model/errors.ts'
import type { Folder } from '../model/folder.ts'
import { withNeededFiles } from '../project/needed-files.ts'
import type { Survey } from '../project/survey.ts'
import type { Output } from '../requests/output.ts'
import { requestAll } from '../requests/request.ts'
import type { Route } from '../requests/routes.ts'
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
  const requestedWith = (more: readonly Route[]): Examined['requested'] =>
    requestAll(
      host,
      site,
      { ...output, facts },
      { named: [...named, ...more], known: survey.routes, samples: options.samples ?? {} },
    )
  const requested = requestedWith([])
  const environment = environmentStates(survey, facts, values)
  const readFile = (file: string): Promise<Uint8Array | null> => readIfThere(build, file)
  const { outside } = requested
  const { endpoints: found, unfollowed } = await endpointsIn({
    site,
    facts,
    outside,
    sources,
    environment,
    readFile,
  })
  const absences = found.filter(({ kind }) => kind === 'absent value')
  const endpoints = found.filter(({ kind }) => kind !== 'absent value')
  const folder = checkedFolder(path, build !== null)
  return { folder, facts, requested, requestedWith, readFile, environment, endpoints, absences, unfollowed }
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
