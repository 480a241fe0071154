import { byDefault } from '../model/reading.ts'
import { everyFile } from '../project/routes/file-routes.ts'
import { member } from '../syntax/value.ts'
import type { Framework } from './framework.ts'
import { mapped, memberNames, option, path, readingsWith, text, usualEnvironmentFiles } from './readings.ts'

const by = "Astro's default"

/** Astro. Checked against 5. */
export const astro: Framework = {
  name: 'astro',
  title: 'Astro',
  markers: ['astro'],
  configFiles: ['astro.config.mjs', 'astro.config.js', 'astro.config.ts', 'astro.config.mts'],
  commands: ['astro build'],
  environmentFiles: usualEnvironmentFiles,
  configArgument: () => ({}),
  environmentObjects: ['import.meta.env'],
  environmentModules: [
    { module: 'astro:env/client', exports: 'names' },
    { module: 'astro:env/server', exports: 'names', serverOnly: true },
  ],
  read: ({ build, config }) => {
    const value = config?.value ?? null
    const output = text(value, 'output')
    const isServer = output?.value === 'server'
    const outDir = option(build, 'outDir') ?? text(value, 'outDir') ?? byDefault('dist', by)
    return readingsWith(by, {
      // With an adapter the pages of a server build are beside its program.
      publishDirectory: mapped(path(outDir), (directory) => (isServer ? `${directory}/client` : directory)),
      basePath: option(build, 'base') ?? text(value, 'base') ?? byDefault('/', by),
      siteAddress: option(build, 'site') ?? text(value, 'site'),
      prefixes: byDefault(['PUBLIC_'], by),
      environmentFiles: usualEnvironmentFiles(option(build, 'mode')?.value ?? 'production'),
      devProxy: memberNames(member(value, 'vite', 'server', 'proxy')) ?? byDefault([], by),
      output: output ? { ...output, value: isServer ? 'server' : 'static' } : byDefault('static', by),
    })
  },
  pages: [{ directories: ['src/pages'], extensions: ['astro', 'md', 'mdx', 'html'], pageOf: everyFile() }],
  signs: { files: [/^_astro\//], page: [/<meta name=["']?generator["']? content=["']?Astro/i] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    environmentFile: '.env.production',
    makeStatic: "Write output: 'static' in the Astro configuration, and take the adapter out.",
  },
}
