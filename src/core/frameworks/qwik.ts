import { byDefault, inferred } from '../model/reading.ts'
import { namedPages, pageScripts } from '../project/routes/file-routes.ts'
import type { Framework } from './framework.ts'
import { readVite, withinVite } from './vite.ts'

const by = "Qwik City's default"

/** Qwik City. Checked against 1. Its static adapter is a second Vite build with a configuration of its own. */
export const qwik: Framework = {
  ...withinVite,
  name: 'qwik',
  title: 'Qwik City',
  markers: ['@builder.io/qwik-city', '@builder.io/qwik', '@qwik.dev/router'],
  commands: ['vite build', 'qwik build'],
  router: 'history',
  environmentObjects: ['import.meta.env'],
  read: (project) => {
    const { build } = project
    const isStatic = /adapters\/static|build\.static|build\.server.*static/.test(build.script ?? '')
    return {
      ...readVite(project, project.config?.value ?? null),
      prefixes: byDefault(['PUBLIC_'], by),
      output: isStatic && build.at ? inferred('static', build.at) : byDefault('server', by),
    }
  },
  pages: [{ directories: ['src/routes'], extensions: pageScripts, pageOf: namedPages('index') }],
  signs: { page: [/q:container=/] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    environmentFile: '.env.production',
    makeStatic: 'Add the static adapter, which prerenders every route in a second build.',
  },
}
