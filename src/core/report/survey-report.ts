import { inferred } from '../model/reading.ts'
import type { SurveyReport } from '../model/report.ts'
import type { NamedAddress } from '../project/addresses.ts'
import type { EnvironmentFile } from '../project/environment-files.ts'
import type { Survey } from '../project/survey.ts'
import type { ObservedBase } from '../requests/observed-base.ts'

/** The survey as the report holds it. */
export function surveyReport(
  survey: Survey,
  observed: ObservedBase | null,
  addresses: readonly NamedAddress[] = [],
): SurveyReport {
  const { build } = survey
  return {
    directory: survey.directory,
    projects: [...survey.projects],
    choice: survey.choice,
    remarks: [...survey.remarks],
    declarations: survey.declarations.map(({ kind, value, place }) => ({ kind, value, place })),
    project: survey.project,
    framework: survey.framework,
    frameworkVersion: survey.frameworkVersion,
    packageManager: survey.packageManager,
    installCommand: survey.installCommand,
    buildCommand: build && { ...build.command, ...(build.script === null ? {} : { script: build.script }) },
    publishDirectory: survey.publishDirectory,
    basePath: survey.basePath,
    observedBase: observed && inferred(observed.base, { file: observed.file, line: 1, column: 1 }),
    addresses: [...addresses],
    mode: survey.mode,
    environment: {
      prefixes: survey.prefixes,
      files: survey.environmentFiles.map(namesOf),
      deploy: survey.deployVariables.map(namesOf),
      reads: survey.reads.map(({ name, place, guarded }) => ({ name, place, guarded })),
    },
    devProxy: survey.devProxy,
    output: survey.output,
    nodeVersion: survey.nodeVersion,
    router: survey.router,
    routerBase: survey.routerBase?.base ?? null,
    routes: [...survey.routes],
  }
}

function namesOf({ file, names }: EnvironmentFile): {
  file: string
  names: { name: string; line: number }[]
} {
  return { file, names: [...names].map(([name, { line }]) => ({ name, line })) }
}
