import { type Folder, filesBelow } from '../model/folder.ts'
import { describeOrigin, inferred, isUncertain, type Reading } from '../model/reading.ts'
import { noSearch } from '../model/search.ts'
import { readInTurn } from '../output/reader.ts'
import { frameworkFromOutput } from '../project/from-output.ts'
import { emptySurvey, type Survey } from '../project/survey.ts'
import { type Output, outputOf } from '../requests/output.ts'
import type { Target } from './open.ts'

/** What a build folder tells of itself when no project stands behind it: framework and base path, inferred. */
async function readingsOf(
  build: Folder,
  { facts, observed }: Output,
): Promise<Pick<Survey, 'framework' | 'basePath'>> {
  const framework = await frameworkFromOutput(
    build,
    facts.map(({ path }) => path),
  )
  const basePath = observed && inferred(observed.base, { file: observed.file, line: 1, column: 1 })
  return { framework, basePath }
}

/** The survey of a bare build folder; null when it holds no page. */
export async function surveyOutput(build: Folder): Promise<Survey | null> {
  const paths = await filesBelow(build, () => true)
  const output = outputOf(await readInTurn(build, paths, noSearch, () => {}))
  if (!output.facts.some(({ kind }) => kind === 'page')) return null
  return { ...emptySurvey(build.label).survey, ...(await readingsOf(build, output)) }
}

/** The survey with what the output answers where the project does not: its base path, and the framework of a bare build folder. */
export async function withOutput({ survey, build }: Target, output: Output): Promise<Survey> {
  const { basePath } = survey
  if (basePath && isUncertain(basePath)) {
    // The survey itself says so.
    if (basePath.inactive) return survey
    const shown = output.observed?.base
    const instead = shown === undefined ? '' : `; the output shows ${shown}`
    return { ...survey, remarks: [...survey.remarks, `The base path ${doubtOf(basePath)}${instead}.`] }
  }
  if (survey.framework || !build) return survey
  const found = await readingsOf(build, output)
  // A project's own builder is another than its output may look like.
  return { ...survey, ...found, framework: survey.project ? null : found.framework }
}

/** Why a base path is uncertain, behind "The base path". */
function doubtOf({ from, expression, dependsOn }: Reading<string | null>): string {
  const where = describeOrigin(from)
  return dependsOn
    ? `depends on the variable ${dependsOn} (${where})`
    : `is computed at ${where} (${expression})`
}

/** The base path to check at when no address is given: what the project says, else what the output shows. */
export function expectedBase({ basePath }: Survey, { observed }: Output): string {
  const said = basePath && isUncertain(basePath) ? (observed?.base ?? basePath.value) : basePath?.value
  const absolute = said && URL.canParse(said) ? new URL(said).pathname : said
  return absolute?.startsWith('/') ? absolute : (observed?.base ?? '/')
}
