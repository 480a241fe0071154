import type { Place, Reading } from '../model/reading.ts'
import { inferred, stated } from '../model/reading.ts'
import type { Framework } from './frameworks/framework.ts'
import type { Manifest } from './manifest.ts'
import { type PackageManager, runScript } from './package-manager.ts'

/** The command that builds, the text behind it, and the options the builder itself is given. */
export interface BuildCommand {
  /** What a person types in the project's directory. */
  readonly command: Reading<string>
  /** The script's text, or null when the framework's command is run as it is. */
  readonly script: string | null
  /** Where the builder is called, for options that beat the configuration. */
  readonly at: Place | null
  /** Options of the builder: `--base /b/` is `base` → `/b/`; one without a value is `''`. */
  readonly options: ReadonlyMap<string, string>
  /** Arguments of the builder that are no options. */
  readonly words: readonly string[]
}

/** Scripts that usually build for production, the likeliest first. */
const likely = [
  'build',
  'build:prod',
  'build:production',
  'generate',
  'export',
  'prod',
  'production',
  'dist',
  'compile',
]

/** Scripts calling scripts are followed this far. */
const deepest = 8

/** Finds the script that runs the framework's build, following scripts that call scripts. */
export function readBuildCommand(
  manifest: Manifest,
  manager: PackageManager,
  framework: Framework,
): BuildCommand | null {
  const scripts = manifest.texts('scripts')
  const names = [...new Set([...likely, ...scripts.keys()])]
  for (const name of names) {
    const script = scripts.get(name)
    if (!script) continue
    const call = findCall(scripts, name, framework, 0)
    if (!call) continue
    const command = { ...script, value: runScript(manager, name) }
    return { command, script: script.value, ...call }
  }
  return frameworkCommand(manager, framework, manifest)
}

function frameworkCommand(manager: PackageManager, framework: Framework, manifest: Manifest): BuildCommand {
  const runner =
    manager === 'npm' ? 'npx' : manager === 'pnpm' ? 'pnpm exec' : manager === 'bun' ? 'bunx' : 'yarn'
  const command = inferred(`${runner} ${framework.build.words}`, manifest.place)
  return { command, script: null, at: null, options: new Map(), words: [] }
}

type Call = Pick<BuildCommand, 'at' | 'options' | 'words'>

function findCall(
  scripts: ReadonlyMap<string, Reading<string>>,
  name: string,
  framework: Framework,
  depth: number,
): Call | null {
  const script = scripts.get(name)
  if (!script || depth > deepest) return null
  for (const part of script.value.split(/&&|\|\||;|\s&\s/)) {
    const tokens = tokenize(part)
    const own = callOf(tokens, framework)
    if (own) return { at: 'file' in script.from ? script.from : null, ...own }
    const called = /^(?:npm|pnpm|bun)$/.test(tokens[0] ?? '')
      ? tokens[1] === 'run'
        ? tokens[2]
        : tokens[1]
      : tokens[0] === 'yarn'
        ? tokens[tokens[1] === 'run' ? 2 : 1]
        : undefined
    const further =
      called !== undefined && called !== name ? findCall(scripts, called, framework, depth + 1) : null
    if (further) return further
  }
  return null
}

/** Splits a command as a shell would for plain words and quotes. */
function tokenize(command: string): string[] {
  const found = command.match(/(?:[^\s"']+|"[^"]*"|'[^']*')+/g) ?? []
  return found.map((token) => token.replace(/"([^"]*)"|'([^']*)'/g, '$1$2'))
}

/** The builder's options in a command, when the command runs the builder. */
function callOf(tokens: readonly string[], framework: Framework): Omit<Call, 'at'> | null {
  const wanted = framework.build.words.split(' ')
  const start = tokens.findIndex((token) => token.replace(/^.*\//, '') === wanted[0])
  if (start < 0) return null
  const rest = tokens.slice(start + 1)
  for (const word of wanted.slice(1)) {
    const at = rest.indexOf(word)
    if (at < 0) return null
    rest.splice(at, 1)
  }
  return readOptions(rest)
}

function readOptions(tokens: readonly string[]): Omit<Call, 'at'> {
  const options = new Map<string, string>()
  const words: string[] = []
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i] ?? ''
    const match = /^--?([\w-]+)(?:=(.*))?$/s.exec(token)
    if (!match?.[1]) words.push(token)
    else if (match[2] !== undefined) options.set(match[1], match[2])
    else {
      const next = tokens[i + 1]
      const hasValue = next !== undefined && !next.startsWith('-')
      options.set(match[1], hasValue ? next : '')
      if (hasValue) i++
    }
  }
  return { options, words }
}

/** An option of the build command as a reading, under any of its names. */
export function optionReading(
  build: BuildCommand | null,
  ...names: readonly string[]
): Reading<string> | null {
  for (const name of names) {
    const value = build?.options.get(name)
    if (value !== undefined && build?.at) return stated(value, build.at)
  }
  return null
}
