import { byDefault, stated } from '../model/reading.ts'
import { defineFramework } from './framework.ts'
import { flatPage, pageScripts } from './page-files.ts'
import { flag, mapped, path, text } from './readings.ts'
import { plugin, viteUrl, withinRoot, withinVite } from './vite.ts'

const by = "Remix's default"

/** Remix built with Vite. Checked against 2. */
export const remixVite = defineFramework({
  ...withinVite,
  name: 'remix',
  title: 'Remix with Vite',
  over: ['vite', 'react-router'],
  markers: ['@remix-run/dev'],
  commands: ['remix vite:build'],
  router: 'history',
  environmentObjects: ['import.meta.env', 'process.env'],
  refine: (project, readings) => {
    const options = plugin(project.config?.value ?? null, /^@remix-run\/dev/)?.args[0] ?? null
    const ssr = flag(options, 'ssr')
    const directory = path(text(options, 'buildDirectory') ?? byDefault('build', by))
    return {
      ...withinRoot(project, readings),
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
    publicUrl: viteUrl,
    environmentFile: '.env.production',
    makeStatic: 'Give the Remix plugin ssr: false in the Vite configuration.',
  },
})
