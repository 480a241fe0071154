import { byDefault } from '../model/reading.ts'
import type { Framework } from './framework.ts'
import { mapped, path, pathOfUrl, readingsWith, variable } from './readings.ts'

const by = "react-scripts' default"

/** react-scripts. Checked against 5.0. In it, `.env.local` beats `.env.production`. */
export const reactScripts: Framework = {
  name: 'react-scripts',
  title: 'react-scripts',
  markers: ['react-scripts'],
  configFiles: [],
  shipsMaps: true,
  commands: ['react-scripts build'],
  environmentExpansion: 'older',
  environmentFiles: (mode) => ['.env', `.env.${mode}`, '.env.local', `.env.${mode}.local`],
  configArgument: () => ({}),
  environmentObjects: ['process.env'],
  read: (project) => {
    const base = variable(project, 'PUBLIC_URL') ?? project.manifest?.text('homepage') ?? byDefault('/', by)
    const proxy = project.manifest?.text('proxy')
    return readingsWith(by, {
      publishDirectory: path(variable(project, 'BUILD_PATH') ?? byDefault('build', by)),
      basePath: mapped(base, pathOfUrl),
      siteAddress: base,
      prefixes: byDefault(['REACT_APP_'], by),
      environmentFiles: reactScripts.environmentFiles('production'),
      // The manifest's proxy forwards whatever the development server has no file for.
      devProxy: proxy ? { ...proxy, value: ['/'] } : byDefault([], by),
    })
  },
  placeholders: /^%(?:PUBLIC_URL|NODE_ENV|REACT_APP_\w+)%$/,
  signs: { files: [/^asset-manifest\.json$/, /^static\/js\/main\.[\da-f]{8}\.js$/] },
  fixes: { setBase: (base) => `"homepage": "${base}",`, environmentFile: '.env.production' },
}
