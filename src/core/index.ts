/**
 * Wardoscope's core: no file system, no network, no interface; it runs in a browser as well.
 * @module wardoscope
 */

export {
  type Cause,
  type CausePlace,
  type Check,
  type CheckDefinition,
  defineCheck,
  type Evidence,
} from './checks/check.ts'
export { type Explanation, type Explanations, parseExplanation } from './checks/explanation.ts'
export { checks } from './checks/index.ts'
export { type Configuration, checkConfiguration, parseConfiguration } from './configuration/configuration.ts'
export { applied, type PlacedEdit } from './edits/edit.ts'
export { editsByFile, type Fixable, fixable, type Move, movesOf, type Values } from './edits/outcome.ts'
export type { Endpoint } from './endpoints/endpoint.ts'
export type { EnvironmentModule } from './frameworks/framework.ts'
export {
  type ConfiguredVariable,
  defineFramework,
  type Framework,
  type FrameworkFixes,
  type FrameworkReadings,
  type NeededFile,
  type OutputKind,
  type OutputSigns,
  type RouterKind,
} from './frameworks/framework.ts'
export { frameworks } from './frameworks/index.ts'
export type { PageFiles } from './frameworks/page-files.ts'
export type { BuildCommand, ConfigFile, Manifest, ProjectSources } from './frameworks/project-sources.ts'
export { type Maybe, option, path, text, variable } from './frameworks/readings.ts'
export type { Setting, SettingsTable } from './frameworks/settings.ts'
export type { Followed } from './host/answer.ts'
export { answer, follow } from './host/answer.ts'
export type { Answer, AnsweredBy, Documents, Host, HostFiles } from './host/host.ts'
export { parseHostFile } from './host/host-file.ts'
export { type PresetName, presetNamed, presets } from './host/presets.ts'
export { folderOfFiles, type GivenFile } from './model/blob-folder.ts'
export { FolderError, UsageError } from './model/errors.ts'
export type {
  CredentialShape,
  EndpointLiteral,
  FileFacts,
  FileKind,
  Occurrence,
  RequestSettings,
} from './model/facts.ts'
export { type Entry, type FileStat, type Folder, walk, within } from './model/folder.ts'
export type { HistoryOf } from './model/history.ts'
export { MemoryFolder } from './model/memory-folder.ts'
export type { Unread } from './model/noting-folder.ts'
export type { Certainty, Origin, Place, Reading } from './model/reading.ts'
export { byDefault, computed, describeOrigin, inferred, stated } from './model/reading.ts'
export type { Against, Reference, ReferenceKind } from './model/reference.ts'
export type { ReferenceList } from './model/reference-list.ts'
export type {
  Comparison,
  Delivery,
  Edit,
  EndpointReport,
  EnvironmentState,
  Finding,
  FindingPlace,
  Fix,
  Report,
  RouteAnswer,
  Severity,
  SurveyReport,
  Verdict,
} from './model/report.ts'
export type { Rule } from './model/rule.ts'
export type { Search, Trace } from './model/search.ts'
export { parseSite, type Site } from './model/site.ts'
export type { SourceRoute } from './model/source-route.ts'
export type { Stopwatch } from './model/stopwatch.ts'
export { type TreeFile, TreeFolder } from './model/tree-folder.ts'
export { folderOfZip } from './model/zip-folder.ts'
export type { Reader } from './output/reader.ts'
export { check, examine } from './pipeline/check.ts'
export type { ProjectName } from './pipeline/open.ts'
export { type BuildFolder, type Opening, open, openProject, type Target } from './pipeline/open.ts'
export type { CheckOptions, KnownReadings, Rehearsable } from './pipeline/options.ts'
export { type ReadOptions, readBuild } from './pipeline/read-build.ts'
export type { NamedAddress } from './project/addresses.ts'
export type { Declaration } from './project/declared/declarations.ts'
export type { RuleFile } from './project/declared/rule-files.ts'
export type { EnvironmentFile, EnvironmentValues } from './project/environment-files.ts'
export type { PackageManager } from './project/package-manager.ts'
export type { ProjectEntry } from './project/projects.ts'
export type { EnvironmentRead } from './project/sources/environment-reads.ts'
export type { Sources } from './project/sources/sources.ts'
export type { Freshness } from './project/sources/times.ts'
export type { RepositoryAround, Survey, SurveyWithSources } from './project/survey.ts'
export { surveyProject } from './project/survey-project.ts'
export type { Reached } from './reach/reached.ts'
export type { Rehearsal } from './rehearse/rehearsal.ts'
export { compareReleases } from './release/compare.ts'
export { type Limits, type LimitsGiven, usualLimits } from './release/limits.ts'
export { type Hosting, purgeList } from './release/purge.ts'
export { type ReleaseRecord, readRecord, recordOf, writeRecord } from './release/record.ts'
export {
  type Release,
  type ReleasedFile,
  type ReleasedRoute,
  releaseOf,
  type Shipped,
} from './release/release.ts'
export type { Waiver } from './release/waivers.ts'
export type { Compress, Compressed } from './release/weight.ts'
export { htmlOf, type Payload, type Viewer } from './report/formats/html.ts'
export { junitOf } from './report/formats/junit.ts'
export { linesOf } from './report/formats/lines.ts'
export { markdownOf } from './report/formats/markdown.ts'
export { sarifOf } from './report/formats/sarif.ts'
export { mapOf } from './report/map/draw.ts'
export { surveyReport } from './report/survey-report.ts'
export type { ObservedBase } from './requests/observed-base.ts'
// What these refer to, so that everything that is passed has a name.
export type { Request, Requested } from './requests/request.ts'
export type { Folded } from './syntax/value.ts'
