import { defineFramework } from './framework.ts'
import { usualEnvironmentFiles } from './readings.ts'

/** Storybook's static build. Checked against 10. Its pages are relative, so that any base path fits. */
export const storybook = defineFramework({
  name: 'storybook',
  title: 'Storybook',
  over: ['webpack', 'rollup', 'esbuild'],
  markers: ['storybook'],
  configFiles: ['ts', 'js', 'mjs', 'cjs', 'mts'].map((ending) => `.storybook/main.${ending}`),
  commands: ['storybook build', 'build-storybook'],
  general: true,
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: { options: ['output-dir', 'o'], default: 'storybook-static' },
    basePath: { default: './' },
    prefixes: ['STORYBOOK_', 'VITE_'],
  },
  needs: (files) =>
    files
      .filter(({ path }) => path === 'index.html' || path === 'iframe.html')
      .map(({ path: from }) => ({ from, path: 'index.json' })),
  signs: { files: [/^sb-manager\//] },
  fixes: {
    setBase: () => "viteFinal: (config) => ({ ...config, base: './' }),",
    environmentFile: '.env.production',
  },
})
