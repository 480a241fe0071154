import type { FileFacts } from '../model/facts.ts'
import { type Folder, filesBelow } from '../model/folder.ts'
import { describeOrigin, inferred } from '../model/reading.ts'
import { noSearch } from '../model/search.ts'
import { readInTurn } from '../output/reader.ts'
import { frameworkFromOutput } from '../project/from-output.ts'
import { emptySurvey, type Survey } from '../project/survey.ts'
import { FolderIndex } from '../requests/folder-index.ts'
import { observeBase } from '../requests/observed-base.ts'
import type { Target } from './open.ts'

/** What a build folder tells of itself when no project stands behind it: framework and base path, inferred. */
export async function readOutput(
  build: Folder,
  facts: readonly FileFacts[],
): Promise<Pick<Survey, 'framework' | 'basePath'>> {
  const framework = await frameworkFromOutput(
    build,
    facts.map(({ path }) => path),
  )
  const observed = observeBase(facts, new FolderIndex(facts))
  return {
    framework,
    basePath: observed && inferred(observed.base, { file: observed.file, line: 1, column: 1 }),
  }
}

/** The survey of a bare build folder; null when it holds no page. */
export async function surveyOutput(build: Folder): Promise<Survey | null> {
  const paths = await filesBelow(build, () => true)
  const facts = await readInTurn(build, paths, noSearch, () => {})
  if (!facts.some(({ kind }) => kind === 'page')) return null
  return { ...emptySurvey(build.label).survey, ...(await readOutput(build, facts)) }
}

/** What the output answers where the project does not: its base path, and the framework of a bare build folder. */
export async function withOutput(target: Target, facts: readonly FileFacts[]): Promise<Target> {
  const { survey, build } = target
  const { basePath } = survey
  if (basePath?.certainty === 'computed') {
    const where = describeOrigin(basePath.from)
    const observed = observeBase(facts, new FolderIndex(facts))?.base
    const instead = observed === undefined ? '' : `; the output shows ${observed}, which is taken instead`
    const remark = `The base path is computed at ${where} (${basePath.expression})${instead}.`
    return { ...target, survey: { ...survey, remarks: [...survey.remarks, remark] } }
  }
  if (survey.project || survey.framework || !build) return target
  return { ...target, survey: { ...survey, ...(await readOutput(build, facts)) } }
}

/** The base path to check at when no address is given: what the project says, else what the output shows. */
export function expectedBase({ survey }: Target, facts: readonly FileFacts[]): string {
  const said = survey.basePath?.value
  const absolute = said && URL.canParse(said) ? new URL(said).pathname : said
  if (absolute?.startsWith('/')) return absolute
  return observeBase(facts, new FolderIndex(facts))?.base ?? '/'
}
