import { directoryOf } from '../model/folder.ts'
import { placeAt, type Reading } from '../model/reading.ts'
import type { OutputKind } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'

/** Presets of nitro that make a folder of files. */
export const isStaticPreset = (preset: string): boolean => /static|pages/.test(preset)

/**
 * What a build with nitro made, as it notes beside its public files: a variable of the build may have set another preset than
 * the configuration, which says nothing then. Null where there is no such note. Checked against nitro 2.
 */
export async function builtOutput(
  { text }: Pick<ProjectSources, 'text'>,
  publishDirectory: string | null,
): Promise<Reading<OutputKind> | null> {
  const file = `${directoryOf(publishDirectory ?? '')}/nitro.json`
  const note = publishDirectory?.includes('/') ? await text(file) : null
  const match = /"preset":\s*"([^"]*)"/.exec(note ?? '')
  if (!note || !match?.[1]) return null
  const value = isStaticPreset(match[1]) ? 'static' : 'server'
  return { value, from: placeAt(file, note, match.index), certainty: 'inferred' }
}
