import { byDefault, inferred } from '../model/reading.ts'
import { defineFramework } from './framework.ts'
import { namedPages, pageScripts } from './page-files.ts'
import { viteUrl, withinRoot, withinVite } from './vite.ts'

/** Qwik City. Checked against 1. Its static adapter is a second Vite build with a configuration of its own. */
export const qwik = defineFramework({
  ...withinVite,
  name: 'qwik',
  title: 'Qwik City',
  markers: ['@builder.io/qwik-city', '@qwik.dev/router'],
  commands: ['vite build', 'qwik build'],
  runsScripts: { words: 'qwik build', names: /^build\.(?!preview)/ },
  router: 'history',
  environmentObjects: ['import.meta.env'],
  settings: { ...withinVite.settings, prefixes: ['PUBLIC_'] },
  refine: (project, readings) => {
    const { build } = project
    const isStatic = /adapters\/static|build\.static|build\.server.*static/.test(build.script ?? '')
    const output = isStatic && build.at ? inferred('static' as const, build.at) : null
    return {
      ...withinRoot(project, readings),
      output: output ?? byDefault('server', "Qwik City's default"),
    }
  },
  pages: [{ directories: ['src/routes'], extensions: pageScripts, pageOf: namedPages('index') }],
  signs: { page: [/q:container=/] },
  fixes: {
    setBase: null,
    noBase:
      'The static adapter writes pages below the base path inside the folder, so no setting alone moves this build: serve it at the top of a host of its own.',
    publicUrl: viteUrl,
    environmentFile: '.env.production',
    makeStatic: 'Add the static adapter, which prerenders every route in a second build.',
  },
})
