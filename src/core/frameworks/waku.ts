import { joinPath } from '../model/folder.ts'
import { defineFramework } from './framework.ts'
import { mapped, text, usualEnvironmentFiles } from './readings.ts'
import { viteUrl } from './vite.ts'

/** Waku. Checked against 1.0. Pages that are drawn while building are beside its server's program. */
export const waku = defineFramework({
  name: 'waku',
  title: 'Waku',
  over: ['vite'],
  markers: ['waku'],
  configFiles: ['ts', 'js', 'mjs', 'mts'].map((ending) => `waku.config.${ending}`),
  commands: ['waku build'],
  routerFollowsBase: true,
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: { default: 'dist/public' },
    basePath: { config: ['basePath'], default: '/' },
    prefixes: ['WAKU_PUBLIC_', 'VITE_'],
    devProxy: ['vite.server.proxy'],
  },
  refine: ({ config }) => {
    const moved = text(config?.value ?? null, 'distDir')
    return moved ? { publishDirectory: mapped(moved, (directory) => joinPath(directory, 'public')) } : {}
  },
  fixes: {
    setBase: (base) => `basePath: '${base}',`,
    publicUrl: viteUrl,
    environmentFile: '.env.production',
    newConfig: (setting) => ({
      file: 'waku.config.ts',
      text: `import { defineConfig } from 'waku/config'\n\nexport default defineConfig({\n  ${setting}\n})\n`,
    }),
  },
})
