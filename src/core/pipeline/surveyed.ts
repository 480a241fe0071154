import type { Surveyed } from '../checks/evidence.ts'
import { readText } from '../model/text.ts'
import { namedAddresses } from '../project/addresses.ts'
import { type Freshness, freshness } from '../project/sources/times.ts'
import type { Survey } from '../project/survey.ts'
import type { Target } from './open.ts'
import type { CheckOptions } from './options.ts'

/** What the project's own files say, with what takes a look at the build folder: whether it is as new as they are. */
export async function surveyedIn(target: Target, survey: Survey, options: CheckOptions): Promise<Surveyed> {
  const { project, sources, build, path } = target
  return {
    survey,
    sources,
    addresses: await namedAddresses(project, { folder: build, path }, survey),
    freshness: await freshnessOf(target, options),
    projectText: (file) => readText(project, file),
  }
}

async function freshnessOf(
  { project, directory, build, path, sources }: Target,
  { history }: CheckOptions,
): Promise<Freshness | null> {
  if (!build || sources.files.length === 0) return null
  return freshness(project, sources, build, path, (await history?.(directory)) ?? null)
}
