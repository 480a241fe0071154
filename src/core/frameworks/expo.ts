import { byDefault } from '../model/reading.ts'
import { member } from '../syntax/value.ts'
import { defineFramework } from './framework.ts'
import { everyFile, pageScripts } from './page-files.ts'
import { text } from './readings.ts'

/** Expo for the web. Checked against 57. Its router's own files `_layout` and `+name` are no pages. */
export const expo = defineFramework({
  name: 'expo',
  title: 'Expo',
  over: ['vite', 'parcel'],
  markers: ['expo'],
  markedWith: ['react-native-web'],
  configFiles: ['app.config.ts', 'app.config.js', 'app.json'],
  // Others have a file of this name too.
  isOwn: () => false,
  commands: ['expo export --platform web', 'expo export'],
  environmentFiles: (mode) => ['.env', `.env.${mode}`, '.env.local', `.env.${mode}.local`],
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { options: ['output-dir'], default: 'dist' },
    basePath: { config: ['expo.experiments.baseUrl', 'experiments.baseUrl'], default: '/' },
    prefixes: ['EXPO_PUBLIC_'],
  },
  refine: ({ config, manifest }) => {
    const value = config?.value ?? null
    const output = text(value, 'expo', 'web', 'output') ?? text(value, 'web', 'output')
    // A JSON file has it all below one name.
    const own = member(value, 'expo') ?? value
    return {
      baseAt: own?.kind === 'object' ? own.at : null,
      ...(output && output.value === 'server' && { output: { ...output, value: 'server' as const } }),
      ...(manifest?.dependency('expo-router') && { router: byDefault('history', "Expo Router's default") }),
    }
  },
  pages: [
    {
      directories: ['app', 'src/app'],
      extensions: pageScripts,
      pageOf: everyFile(/(?:^|\/)(?:_layout|\+[\w-]+)(?:\.\w+)?$|\+api$/),
    },
  ],
  signs: { files: [/^_expo\/static\//] },
  fixes: {
    setBase: (base) => `"experiments": { "baseUrl": "${base.replace(/\/$/, '')}" },`,
    environmentFile: '.env.production',
    freshOption: '--clear',
  },
})
