import { byDefault, inferred, stated } from '../model/reading.ts'
import { defineFramework, type RouterKind } from './framework.ts'
import { text } from './readings.ts'

/** Quasar for the web. Checked against its builder for Vite, 2. The kind of application names its directory; its router hides behind a hash. */
export const quasar = defineFramework({
  name: 'quasar',
  title: 'Quasar',
  over: ['vite'],
  markers: ['@quasar/app-vite', '@quasar/app-webpack'],
  configFiles: ['ts', 'js', 'mjs', 'cjs'].map((ending) => `quasar.config.${ending}`).concat('quasar.conf.js'),
  commands: ['quasar build'],
  environmentFiles: () => ['.env', '.env.local', '.env.prod', '.env.local.prod'],
  environmentObjects: ['process.env', 'import.meta.env'],
  configArgument: () => ({ prod: true, dev: false }),
  settings: {
    publishDirectory: { config: ['build.distDir'], default: 'dist/spa' },
    basePath: { config: ['build.publicPath'], default: '/' },
    prefixes: [''],
    devProxy: ['devServer.proxy'],
  },
  refine: ({ config, build }, { publishDirectory }) => {
    const kind = build.options.get('m') ?? build.options.get('mode') ?? 'spa'
    const router = text(config?.value ?? null, 'build', 'vueRouterMode')
    const known = router?.value === 'history' || router?.value === 'hash'
    return {
      ...(publishDirectory.certainty === 'default' &&
        kind !== 'spa' &&
        build.at && { publishDirectory: inferred(`dist/${kind}`, build.at) }),
      ...(kind === 'ssr' && build.at && { output: stated('server' as const, build.at) }),
      router: known
        ? { ...router, value: router.value as RouterKind }
        : byDefault('hash', "Quasar's default"),
    }
  },
  fixes: {
    setBase: (base) => `build: { publicPath: '${base}' },`,
    environmentFile: '.env.prod',
    makeStatic: 'Build with quasar build, without -m ssr, which writes an application for a host of files.',
  },
})
