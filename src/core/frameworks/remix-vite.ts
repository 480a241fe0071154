import { byDefault, stated } from '../model/reading.ts'
import { flatPage, pageScripts } from '../project/routes/file-routes.ts'
import type { Framework } from './framework.ts'
import { flag, mapped, path, text } from './readings.ts'
import { plugin } from './tanstack-start.ts'
import { readVite, withinVite } from './vite.ts'

const by = "Remix's default"

/** Remix built with Vite. Checked against 2. */
export const remixVite: Framework = {
  ...withinVite,
  name: 'remix',
  title: 'Remix with Vite',
  markers: ['@remix-run/dev'],
  commands: ['remix vite:build'],
  router: 'history',
  environmentObjects: ['import.meta.env', 'process.env'],
  read: (project) => {
    const config = project.config?.value ?? null
    const options = plugin(config, /^@remix-run\/dev/)?.args[0] ?? null
    const ssr = flag(options, 'ssr')
    const directory = path(text(options, 'buildDirectory') ?? byDefault('build', by))
    return {
      ...readVite(project, config),
      publishDirectory: mapped(directory, (found) => `${found}/client`),
      output:
        ssr && 'file' in ssr.from
          ? stated(ssr.value === false ? 'static' : 'server', ssr.from)
          : byDefault('server', by),
    }
  },
  pages: [{ directories: ['app/routes'], extensions: pageScripts, pageOf: flatPage }],
  signs: { page: [/__remixContext/] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    environmentFile: '.env.production',
    makeStatic: 'Give the Remix plugin ssr: false in the Vite configuration.',
  },
}
