import { isEnvironmentFile } from '../model/environment-file.ts'
import type { Place } from '../model/reading.ts'
import type { Edit, EnvironmentState } from '../model/report.ts'
import { passedOn } from '../project/survey.ts'
import { type CauseFix, type Evidence, rebuild } from './check.ts'
import { variableEdit } from './variable-edit.ts'

/** How variables that a build lacked are set: in the file that gives it others, in its environment file, or under another name. */
export function setMissing(missing: readonly EnvironmentState[], evidence: Evidence): CauseFix {
  const inPipeline = pipelineEdits(missing, evidence)
  const edits = inPipeline ?? editsOf(missing, evidence)
  const isOfBuild =
    (edits.length === 0 || inPipeline !== null) &&
    !isHidden(missing, evidence) &&
    missing.every(({ definedIn, inProcess }) => definedIn.length === 0 && !inProcess) &&
    (evidence.survey.environmentTarget === null ||
      isEnvironmentFile(evidence.survey.environmentTarget) ||
      missing.every(({ name }) => passedOn(evidence.survey).has(name)))
  return {
    steps: inPipeline ? pipelineSteps(inPipeline, evidence) : steps(missing, evidence),
    edits,
    ...(isOfBuild && { variables: missing.map(({ name }) => name) }),
  }
}

/** Whether browsers get them by no name that they have. */
function isHidden(missing: readonly EnvironmentState[], { survey }: Evidence): boolean {
  const prefix = prefixOf(survey)
  const given = passedOn(survey)
  return prefix !== undefined && missing.every(({ name }) => !name.startsWith(prefix) && !given.has(name))
}

/** The names that an unknown builder lets through are not known. */
function prefixOf(survey: Evidence['survey']): string | undefined {
  if (survey.framework === null) return undefined
  return survey.prefixes?.value?.find((each) => each !== '')
}

function steps(missing: readonly EnvironmentState[], evidence: Evidence): string[] {
  const names = missing.map(({ name }) => name).join(' and ')
  const defined = missing.flatMap(({ definedIn }) => definedIn).at(-1)
  const inProcess = missing.every((variable) => variable.inProcess)
  const file = evidence.survey.environmentTarget
  const prefix = prefixOf(evidence.survey)
  // Configuration is read before environment files are, by most builders.
  const isGiven = missing.some(({ name }) => passedOn(evidence.survey).has(name))
  const where = isHidden(missing, evidence)
    ? `Only names that begin with ${prefix} reach the browser: call it ${prefix}${names}, in the environment and in the sources.`
    : inProcess
      ? `${names}: set in the environment now, so this build is older or ran without it.`
      : defined
        ? `${names}: ${defined.file} sets it now, so this build is older or ran without that file.`
        : file !== null && !isEnvironmentFile(file) && !isGiven
          ? `In ${file}, give ${names} ${missing.length > 1 ? 'values' : 'a value'} for production.`
          : `Set ${names} where the build runs${pipeline(evidence)}${file && !isGiven ? `, or in ${file}` : ''}.`
  return [where, rebuild(evidence)]
}

/** The file that gives the build its other variables. */
function pipeline({ survey }: Evidence): string {
  const first = survey.deployVariables.find((each) => !isEnvironmentFile(each.file))
  const at = first?.names.values().next().value
  return at ? ` (${at.file}:${at.line} sets others)` : ''
}

/** The file that gives the build variables that browsers get, where no environment file does. */
function pipelineEdits(missing: readonly EnvironmentState[], { survey }: Evidence): Edit[] | null {
  const prefix = prefixOf(survey)
  if (prefix === undefined || !missing.every((each) => isOpen(each, prefix))) return null
  const setsPublic = ({ names }: { readonly names: ReadonlyMap<string, Place> }): boolean =>
    [...names.keys()].some((name) => name.startsWith(prefix))
  if (survey.environmentFiles.some(setsPublic)) return null
  const names = survey.deployVariables.find(setsPublic)?.names ?? new Map<string, Place>()
  const at = [...names].find(([name]) => name.startsWith(prefix))?.[1]
  return at
    ? missing.map(({ name }) => ({
        file: at.file,
        line: at.line,
        write: `${name}: …`,
        needs: name,
        beside: true,
      }))
    : null
}

function pipelineSteps(edits: readonly Edit[], evidence: Evidence): string[] {
  const [{ file, line } = { file: '', line: 0 }] = edits
  const names = edits.map(({ needs }) => needs).join(' and ')
  return [
    `In ${file}, give the build ${names} with ${edits.length > 1 ? 'their values' : 'its value'}: line ${line} sets another variable in the same way.`,
    rebuild(evidence),
  ]
}

/** Set nowhere, and of use under its name. */
function isOpen({ name, definedIn, inProcess }: EnvironmentState, prefix: string): boolean {
  return definedIn.length === 0 && !inProcess && name.startsWith(prefix)
}

function editsOf(missing: readonly EnvironmentState[], { survey }: Evidence): NonNullable<CauseFix['edits']> {
  const file = survey.environmentTarget
  const prefixes = survey.prefixes?.value ?? []
  // Set already, or of no use under its name: another line changes nothing.
  return file &&
    isEnvironmentFile(file) &&
    missing.every((each) => prefixes.some((prefix) => isOpen(each, prefix)))
    ? missing.map(({ name }) => variableEdit(file, name))
    : []
}
