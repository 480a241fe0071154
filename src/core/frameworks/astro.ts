import { defineFramework } from './framework.ts'
import { everyFile } from './page-files.ts'
import { mapped, text, usualEnvironmentFiles } from './readings.ts'

/** Astro. Checked against 5. */
export const astro = defineFramework({
  name: 'astro',
  title: 'Astro',
  over: ['vite'],
  markers: ['astro'],
  configFiles: ['astro.config.mjs', 'astro.config.js', 'astro.config.ts', 'astro.config.mts'],
  commands: ['astro build'],
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['import.meta.env'],
  environmentModules: [
    { module: 'astro:env/client', exports: 'names' },
    { module: 'astro:env/server', exports: 'names', serverOnly: true },
  ],
  settings: {
    publishDirectory: { options: ['outDir'], config: ['outDir'], default: 'dist' },
    basePath: { options: ['base'], config: ['base'], default: '/' },
    siteAddress: { options: ['site'], config: ['site'] },
    mode: { options: ['mode'] },
    prefixes: ['PUBLIC_'],
    devProxy: ['vite.server.proxy'],
  },
  refine: ({ config }, { publishDirectory }) => {
    const output = text(config?.value ?? null, 'output')
    if (!output) return {}
    if (output.value !== 'server') return { output: { ...output, value: 'static' } }
    // With an adapter the pages of a server build are beside its program.
    const besideProgram = mapped(publishDirectory, (directory) => `${directory}/client`)
    return { output: { ...output, value: 'server' }, publishDirectory: besideProgram }
  },
  pages: [{ directories: ['src/pages'], extensions: ['astro', 'md', 'mdx', 'html'], pageOf: everyFile() }],
  signs: { files: [/^_astro\//], page: [/<meta name=["']?generator["']? content=["']?Astro/i] },
  fixes: {
    keeps: /\.(?:html?|mdx?)$/,
    setBase: (base) => `base: '${base}',`,
    // Its base path has a slash at the end or none, as it is written.
    publicUrl: { write: (path) => `\`\${import.meta.env.BASE_URL.replace(/\\/?$/, '/')}${path}\`` },
    setSite: ({ origin }) => `site: '${origin}',`,
    environmentFile: '.env.production',
    makeStatic: "Write output: 'static' in the Astro configuration, and take the adapter out.",
  },
})
