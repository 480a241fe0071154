import type { Host } from './host.ts'

/** Documents that frameworks write for unknown paths, the entry document last. */
const shells = ['200.html', '__spa-fallback.html', '_shell.html', 'index.html']

const plain: Host = {
  name: 'files',
  about: 'Plain files with a directory index, and nothing more',
  directoryIndex: 'index.html',
  extensionless: false,
  trailingSlash: 'keep',
  rules: [],
  fallback: null,
  notFound: null,
  withheld: [],
  letterCase: 'kept',
  contentTypes: {},
  limits: { files: null, fileBytes: null },
}

/** The hosts that can be named on the command line. */
export const presets: readonly Host[] = [
  plain,
  {
    ...plain,
    name: 'fallback',
    about: 'Unknown paths are answered with the entry document and status 200',
    fallback: { documents: shells, status: 200 },
  },
  {
    ...plain,
    name: 'error-page',
    about: 'Unknown paths are answered with 404.html, else the entry document, and status 404',
    notFound: { documents: ['404.html', 'index.html'], status: 404 },
  },
  {
    ...plain,
    name: 'clean-urls',
    about: '.html may be left out, and unknown paths are answered with 404.html and status 404',
    extensionless: true,
    notFound: { documents: ['404.html'], status: 404 },
  },
]

/** The host assumed when none is named: the strictest one, so that nothing is taken for granted. */
export const assumedHost: Host = plain

/** A name of a preset. */
export type PresetName = 'files' | 'fallback' | 'error-page' | 'clean-urls'

/** The preset of a name, or null. */
export function presetNamed(name: PresetName): Host
export function presetNamed(name: string): Host | null
export function presetNamed(name: string): Host | null {
  return presets.find((preset) => preset.name === name) ?? null
}
