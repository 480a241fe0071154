import type { Framework, FrameworkReadings } from '../frameworks/framework.ts'
import { type Folder, joinUp, listIfThere } from '../model/folder.ts'
import { inferred } from '../model/reading.ts'
import { madeOutput, siteAround, siteBelow } from './find-output.ts'

/**
 * What is built tells where the site is, where nothing in the project does: a plugin that builds for a server too moves it below
 * the default directory, and a bundler that writes no page is given a directory inside of it.
 */
export async function asBuilt(
  readings: FrameworkReadings,
  folder: Folder,
  { general }: Framework,
): Promise<FrameworkReadings> {
  const { value, certainty } = readings.publishDirectory
  if (!value) return readings
  const below = certainty === 'default' ? await siteBelow(folder, joinUp(value)) : null
  const site = below ?? (general ? await siteAround(folder, joinUp(value)) : null)
  const by = below
    ? `the only site below ${value}, which is the default`
    : `the page that loads what is built into ${value}`
  if (site === null) return readings
  return {
    ...readings,
    publishDirectory: inferred(site, { by }),
    ...(below === null && { builtInto: joinUp(value) }),
  }
}

/** The default directory is not there, and another one is seen to be what a build made: a plugin may move it without a word. */
export async function movedByPlugin(
  readings: FrameworkReadings,
  folder: Folder,
): Promise<FrameworkReadings | null> {
  const { value, certainty } = readings.publishDirectory
  if (!value || certainty !== 'default' || (await listIfThere(folder, joinUp(value))) !== null) return null
  const made = await madeOutput(folder)
  const by = `the only folder with a built page that the repository leaves out; ${value}, the default, is not there`
  return made === null ? null : { ...readings, publishDirectory: inferred(made, { by }) }
}
