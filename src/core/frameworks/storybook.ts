import { byDefault } from '../model/reading.ts'
import type { Framework } from './framework.ts'
import { option, path, readingsWith, usualEnvironmentFiles } from './readings.ts'

const by = "Storybook's default"

/** Storybook's static build. Checked against 10. Its pages are relative, so that any base path fits. */
export const storybook: Framework = {
  name: 'storybook',
  title: 'Storybook',
  markers: ['storybook'],
  configFiles: ['ts', 'js', 'mjs', 'cjs', 'mts'].map((ending) => `.storybook/main.${ending}`),
  commands: ['storybook build', 'build-storybook'],
  general: true,
  environmentFiles: usualEnvironmentFiles,
  configArgument: () => ({}),
  environmentObjects: ['import.meta.env', 'process.env'],
  read: ({ build }) =>
    readingsWith(by, {
      publishDirectory: path(option(build, 'output-dir', 'o') ?? byDefault('storybook-static', by)),
      basePath: byDefault('./', by),
      prefixes: byDefault(['STORYBOOK_', 'VITE_'], by),
      environmentFiles: usualEnvironmentFiles('production'),
    }),
  needs: (files) =>
    files
      .filter(({ path }) => path === 'index.html' || path === 'iframe.html')
      .map(({ path: from }) => ({ from, path: 'index.json' })),
  signs: { files: [/^sb-manager\//] },
  fixes: {
    setBase: () => "viteFinal: (config) => ({ ...config, base: './' }),",
    environmentFile: '.env.production',
  },
}
