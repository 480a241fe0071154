import type { Surveyed } from '../checks/evidence.ts'
import type { FileFacts } from '../model/facts.ts'
import { readText } from '../model/text.ts'
import { namedAddresses } from '../project/addresses.ts'
import { copiedFrom } from '../project/copied-from.ts'
import { otherCopies } from '../project/other-copies.ts'
import { type Freshness, freshness } from '../project/sources/times.ts'
import type { Survey } from '../project/survey.ts'
import type { Target } from './open.ts'
import type { CheckOptions } from './options.ts'

/** What the project's own files say, with what takes a look at the build folder: whether it is as new as they are. */
export async function surveyedIn(
  target: Target,
  survey: Survey,
  facts: readonly FileFacts[],
  options: CheckOptions,
): Promise<Surveyed> {
  const { project, sources, build, path } = target
  return {
    survey,
    sources,
    addresses: await namedAddresses(project, { folder: build, path }, survey),
    freshness: await freshnessOf(target, facts, options),
    otherCopies: build && project !== build ? await otherCopies(project, path, facts) : [],
    copiedFrom: async (file) => (build && project !== build ? copiedFrom(project, path, file, build) : null),
    projectText: (file) => readText(project, file),
  }
}

async function freshnessOf(
  { project, directory, build, path, sources, survey }: Target,
  facts: readonly FileFacts[],
  { history }: CheckOptions,
): Promise<Freshness | null> {
  if (!build || sources.files.length === 0) return null
  const pages = facts.filter(({ kind }) => kind === 'page').map((each) => each.path)
  const configFile = survey.config?.file ?? null
  return freshness(
    { project, files: [...sources.files], configFile, build, buildPath: path, pages },
    (await history?.(directory)) ?? null,
  )
}
