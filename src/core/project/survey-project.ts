import type { Folder } from '../model/folder.ts'
import { describeOutline, outlineProject } from './describe-project.ts'
import type { RepositoryAround, SurveyWithSources } from './survey.ts'
import { withSources } from './with-sources.ts'

/**
 * Reads what a project says of itself. Its code is read, never run. Null when nothing marks the directory as a project.
 * @throws {FolderError} when the manifest is not JSON, or a file can't be read.
 */
export async function surveyProject(
  folder: Folder,
  around?: RepositoryAround,
): Promise<SurveyWithSources | null> {
  const outline = await outlineProject(folder, around)
  return outline && withSources(folder, await describeOutline(outline, true), { alone: true })
}
