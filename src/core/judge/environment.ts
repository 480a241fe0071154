import type { FileFacts } from '../model/facts.ts'
import type { EnvironmentState } from '../model/report.ts'
import type { Survey } from '../survey/survey.ts'

/**
 * What became of every variable the sources read or the project defines for production. Places of the build are
 * offsets until the report is written, so `injectedIn` is filled there; no value is ever part of this.
 */
export function environmentStates(survey: Survey, facts: readonly FileFacts[]): EnvironmentState[] {
  const names = new Set([...survey.reads.map(({ name }) => name), ...publicNames(survey)])
  return [...names].sort().map((name) => {
    const reads = survey.reads.filter((read) => read.name === name)
    return {
      name,
      state: stateOf(name, reads, facts),
      definedIn: survey.environmentFiles.flatMap((file) => file.names.get(name) ?? []),
      readAt: reads.map(({ place }) => place),
      injectedIn: [],
    }
  })
}

function publicNames({ environmentFiles, prefixes }: Survey): string[] {
  const names = environmentFiles.flatMap((file) => [...file.names.keys()])
  return names.filter((name) => prefixes?.value?.some((prefix) => name.startsWith(prefix)))
}

function stateOf(
  name: string,
  reads: Survey['reads'],
  facts: readonly FileFacts[],
): EnvironmentState['state'] {
  const sightings = facts.flatMap((file) => file.sightings.filter((sighting) => sighting.name === name))
  // `undefined` where an unguarded read stands is proof, whatever else is found.
  if (sightings.some(({ state }) => state === 'absent')) return 'absent'
  if (sightings.length > 0) return 'injected'
  if (reads.length === 0) return 'unused'
  return reads.every(({ guarded }) => guarded) ? 'guarded' : 'unknown'
}
