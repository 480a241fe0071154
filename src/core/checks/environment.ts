import type { FileFacts, Occurrence } from '../model/facts.ts'
import type { EnvironmentState } from '../model/report.ts'
import { type EnvironmentValues, isTelling } from '../project/environment-files.ts'
import type { Survey } from '../project/survey.ts'

/**
 * What became of every variable the sources read or the project defines for production. Places of the build are
 * offsets until the report is written, so `injectedIn` is filled there; no value is ever part of this.
 */
export function environmentStates(
  survey: Survey,
  facts: readonly FileFacts[],
  values: EnvironmentValues,
): EnvironmentState[] {
  const seen = new Map<string, Occurrence[]>()
  for (const { occurrences } of facts) {
    for (const occurrence of occurrences) {
      const known = seen.get(occurrence.name)
      if (known) known.push(occurrence)
      else seen.set(occurrence.name, [occurrence])
    }
  }
  const inProcess = values.namesInProcess()
  const read = survey.reads.map(({ name }) => name)
  const names = new Set([...read, ...publicNames(survey), ...inProcess, ...seen.keys()])
  return [...names].sort().map((name) => {
    const reads = survey.reads.filter((read) => read.name === name)
    return {
      name,
      state: stateOf(name, reads, seen.get(name) ?? [], values, survey.computedReads.length > 0),
      definedIn: [...survey.deployVariables, ...survey.environmentFiles].flatMap(
        (file) => file.names.get(name) ?? [],
      ),
      inProcess: inProcess.has(name),
      readAt: reads.map(({ place }) => place),
      injectedIn: [],
    }
  })
}

function publicNames({ environmentFiles, deployVariables, prefixes }: Survey): string[] {
  const namesOf = (files: Survey['environmentFiles']): string[] =>
    files.flatMap((file) => [...file.names.keys()])
  const begins = (name: string, empty: boolean): boolean =>
    prefixes?.value?.some((prefix) => (prefix !== '' || empty) && name.startsWith(prefix)) ?? false
  // Where any name is public, a pipeline's list says nothing of which the site is meant to have.
  return [
    ...namesOf(environmentFiles).filter((name) => begins(name, true)),
    ...namesOf(deployVariables).filter((name) => begins(name, false)),
  ]
}

function stateOf(
  name: string,
  reads: Survey['reads'],
  occurrences: readonly Occurrence[],
  values: EnvironmentValues,
  readByComputedName: boolean,
): EnvironmentState['state'] {
  const has = (state: Occurrence['state']): boolean =>
    occurrences.some((occurrence) => occurrence.state === state)
  if (has('private')) return 'private'
  // `undefined` where an unguarded read stands is proof, whatever else is found.
  // An object of the environment may be a library's own, unless none has the name.
  if (has('absent') || (has('lacking') && !has('present'))) return 'absent'
  if (has('unreplaced')) return 'unreplaced'
  if (has('development')) return 'from development'
  const found = occurrences.some(({ state, read }) => state === 'present' && read === null)
  if (found) return values.isPlaceholder(name) ? 'placeholder' : 'injected'
  if (has('present')) return isOutdated(name, values) ? 'outdated' : 'injected'
  if (reads.length === 0) return readByComputedName ? 'unknown' : 'unused'
  return reads.every(({ guarded }) => guarded) ? 'guarded' : 'unknown'
}

/** The place of the variable holds a value, and the one it has now is nowhere in the build. */
function isOutdated(name: string, values: EnvironmentValues): boolean {
  const value = values.forSearching().get(name)
  return value !== undefined && isTelling(value)
}
