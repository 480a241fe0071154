/** Wardoscope's core: no file system, no network, no interface; it runs in a browser as well. */
export { type CheckOptions, check } from './check.ts'
export type { Answer, Host } from './host/host.ts'
export { presetNamed, presets } from './host/presets.ts'
export type { Cause, Evidence, Judge } from './judge/judge.ts'
export { judges } from './judge/judges.ts'
export { type Entry, type FileStat, type Folder, FolderError } from './model/folder.ts'
export { MemoryFolder } from './model/memory-folder.ts'
export type { Certainty, Origin, Place, Reading } from './model/reading.ts'
export type {
  Finding,
  FindingPlace,
  Remedy,
  Report,
  Severity,
  SurveyReport,
  Verdict,
} from './model/report.ts'
export { parseSite, type Site, UsageError } from './model/site.ts'
export { type BuildFolder, open, openProject, type Target } from './open.ts'
export { surveyReport } from './report/survey-report.ts'
export type { Survey } from './survey/survey.ts'
export { surveyProject } from './survey/survey-project.ts'
