import { byDefault } from '../model/reading.ts'
import { defineFramework } from './framework.ts'
import { flag, mapped, text, usualEnvironmentFiles } from './readings.ts'
import { readViteConfig, viteArgument, viteUrl } from './vite.ts'

/** React Router as a framework. Checked against 7. The base path must be said in Vite's `base` and in `basename`. */
export const reactRouter = defineFramework({
  name: 'react-router',
  title: 'React Router',
  over: ['vite'],
  markers: ['@react-router/dev'],
  configFiles: ['react-router.config.ts', 'react-router.config.js', 'react-router.config.mjs'],
  commands: ['react-router build'],
  router: 'history',
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: { config: ['buildDirectory'], default: 'build' },
    basePath: { default: '/' },
  },
  refine: async (project, { publishDirectory }) => {
    const ssr = flag(project.config?.value ?? null, 'ssr')
    const base = text(project.config?.value ?? null, 'basename') ?? byDefault('/', "React Router's default")
    return {
      routerBase: { base, write: (path) => `basename: '${path}',` },
      ...(await readViteConfig(project)),
      publishDirectory: mapped(publishDirectory, (found) => `${found}/client`),
      output: ssr
        ? mapped(ssr, (renders) => (renders ? 'server' : 'static'))
        : byDefault('server', "React Router's default"),
    }
  },
  signs: { page: [/__reactRouterContext/] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    publicUrl: viteUrl,
    environmentFile: '.env.production',
    makeStatic:
      'Write ssr: false in react-router.config.ts, with prerender for pages that need their own file.',
    staticBy: { settings: () => ['ssr: false'] },
  },
})
