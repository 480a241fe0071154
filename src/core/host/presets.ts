import type { Host } from './host.ts'

const plain: Host = {
  name: 'files',
  about: 'Plain files with a directory index, and nothing more',
  directoryIndex: 'index.html',
  extensionless: false,
  fallback: null,
  withheld: [],
}

/** The hosts that can be named on the command line. */
export const presets: readonly Host[] = [
  plain,
  {
    ...plain,
    name: 'fallback',
    about: 'Unknown paths are answered with the entry document and status 200',
    fallback: { documents: ['200.html', '__spa-fallback.html', '_shell.html', 'index.html'], status: 200 },
  },
]

/** The host assumed when none is named: the strictest one, so that nothing is taken for granted. */
export const assumedHost: Host = plain

/** The preset of a name, or null. */
export function presetNamed(name: string): Host | null {
  return presets.find((preset) => preset.name === name) ?? null
}
