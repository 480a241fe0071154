import { defineFramework, type FrameworkReadings } from '../frameworks/framework.ts'
import { usualEnvironmentFiles } from '../frameworks/readings.ts'
import { computed, inferred, type Place } from '../model/reading.ts'
import { outputsIn } from './find-output.ts'
import { tellingSettings } from './telling-settings.ts'

/** Prefixes by which builders let variables into what visitors get. */
const usualPrefixes = [
  'VITE_',
  'PUBLIC_',
  'NEXT_PUBLIC_',
  'NUXT_PUBLIC_',
  'EXPO_PUBLIC_',
  'REACT_APP_',
  'VUE_APP_',
  'GATSBY_',
  'STORYBOOK_',
]

/**
 * Stands for a builder that is not known: a project with a build script, whose output is the only folder below that holds a
 * built page. What builders have in common is read; of its configuration, only what names and values tell.
 */
export const unknownBuilder = defineFramework({
  name: 'unknown',
  title: 'The builder',
  markers: [],
  commands: [],
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: { default: '' },
    basePath: { default: '/' },
    prefixes: usualPrefixes,
  },
  refine: async (project) => {
    const { baseSettings, devProxy } = await tellingSettings(project)
    const publishDirectory = onlyOutput(await outputsIn(project.folder), project.build.at)
    return { publishDirectory, baseSettings, ...(devProxy && { devProxy }) }
  },
  fixes: { setBase: null, environmentFile: null },
})

function onlyOutput(
  [first, ...others]: readonly string[],
  at: Place | null,
): FrameworkReadings['publishDirectory'] {
  return first !== undefined && others.length === 0
    ? inferred(first, { by: 'the only folder with a built page' })
    : computed('not known', at ?? { file: 'package.json', line: 1, column: 1 })
}
