import { defineFramework } from './framework.ts'
import { usualEnvironmentFiles } from './readings.ts'
import { viteUrl } from './vite.ts'

/** Slidev. Checked against 52. Its slides are its configuration; where they go, the command says. */
export const slidev = defineFramework({
  name: 'slidev',
  title: 'Slidev',
  over: ['vite'],
  markers: ['@slidev/cli'],
  commands: ['slidev build'],
  routerFollowsBase: true,
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['import.meta.env'],
  settings: {
    publishDirectory: { options: ['out', 'o'], default: 'dist' },
    basePath: { options: ['base'], default: '/' },
    prefixes: ['VITE_'],
  },
  fixes: {
    setBase: (base) => `--base ${base}`,
    baseIn: 'command',
    publicUrl: viteUrl,
    environmentFile: '.env.production',
  },
})
