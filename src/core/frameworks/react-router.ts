import { byDefault, type Reading } from '../model/reading.ts'
import type { Folded } from '../syntax/value.ts'
import type { Framework, OutputKind } from './framework.ts'
import { flag, mapped, path, text } from './readings.ts'
import { readVite, vite, viteArgument, viteConfigFiles } from './vite.ts'

const by = "React Router's default"

/** React Router as a framework. Checked against 7. The base path must be said in Vite's `base` and in `basename`. */
export const reactRouter: Framework = {
  name: 'react-router',
  title: 'React Router',
  markers: ['@react-router/dev'],
  configFiles: ['react-router.config.ts', 'react-router.config.js', 'react-router.config.mjs'],
  commands: ['react-router build'],
  router: 'history',
  environmentFiles: vite.environmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env', 'process.env'],
  read: async (project) => {
    const config = project.config?.value ?? null
    const viteFile = viteConfigFiles.find((name) => project.names.has(name))
    const readings = readVite(project, viteFile ? await project.fold(viteFile) : null)
    const directory = path(text(config, 'buildDirectory') ?? byDefault('build', by))
    return {
      ...readings,
      publishDirectory: mapped(directory, (found) => `${found}/client`),
      output: outputOf(config),
    }
  },
  signs: { page: [/__reactRouterContext/] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    environmentFile: '.env.production',
    makeStatic:
      'Write ssr: false in react-router.config.ts, with prerender for pages that need their own file.',
  },
}

function outputOf(config: Folded | null): Reading<OutputKind | null> {
  const ssr = flag(config, 'ssr')
  if (ssr?.value === false) return { ...ssr, value: 'static' }
  return ssr ? { ...ssr, value: ssr.value === null ? null : 'server' } : byDefault('server', by)
}
