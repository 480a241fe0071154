import type { Framework } from '../frameworks/framework.ts'
import type { BuildCommand, Manifest } from '../frameworks/project-sources.ts'
import { joinUp } from '../model/folder.ts'
import { inferred, type Place, type Reading } from '../model/reading.ts'
import { type PackageManager, runScript } from './package-manager.ts'
import { commandsOf } from './shell-command.ts'

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
const deepest = 50

/** Parts of a pattern for names of scripts: `build:*:*` has two. */
const mostStars = 8

type ManifestScripts = ReadonlyMap<string, Reading<string>>
type BuilderCall = Omit<BuildCommand, 'command' | 'script' | 'around'>

const noCall: BuilderCall = {
  at: null,
  matched: null,
  options: new Map(),
  words: [],
  environment: new Map(),
  directory: '',
}

/** Finds the script that runs the framework's build, following scripts that call scripts; else the framework's command. */
export function readBuildCommand(
  manifest: Manifest | null,
  manager: PackageManager,
  framework: Framework,
): BuildCommand {
  const scripts: ManifestScripts = manifest?.texts('scripts') ?? new Map()
  const found = findScript(scripts, framework)
  if (found) {
    const [name, script, call] = found
    return {
      command: { ...script, value: runScript(manager, name) },
      script: script.value,
      around: around(scripts, name),
      ...call,
    }
  }
  // A script of the usual name builds, even if it calls the builder in words of its own.
  const usual = scripts.get('build')
  if (usual) {
    const at = 'file' in usual.from ? usual.from : null
    return {
      command: { ...usual, value: runScript(manager, 'build') },
      script: usual.value,
      around: around(scripts, 'build'),
      ...noCall,
      at,
    }
  }
  const words = framework.commands[0] ?? ''
  const from = manifest?.place ?? { by: `${framework.title}'s own command` }
  return {
    command: inferred(manifest ? `${runnerOf(manager)} ${words}` : words, from),
    script: null,
    around: [],
    ...noCall,
  }
}

/** npm, pnpm and yarn 1 run `prebuild` and `postbuild` with `build`. */
function around(scripts: ManifestScripts, name: string): BuildCommand['around'] {
  const before = scripts.get(`pre${name}`)
  const after = scripts.get(`post${name}`)
  return [
    ...(before ? [['before', before.value] as const] : []),
    ...(after ? [['after', after.value] as const] : []),
  ]
}

/** The command with what makes it build anew; npm passes options on behind `--` only. Null where none is known. */
export function freshCommand({
  build,
  definition,
}: {
  readonly build: { readonly command: Reading<string> } | null
  readonly definition: Pick<Framework, 'fixes'> | null
}): string | null {
  const command = build?.command.value ?? null
  const { freshOption, freshBy } = definition?.fixes ?? {}
  if (command === null) return null
  if (freshBy !== undefined) return `${freshBy} && ${command}`
  return freshOption === undefined
    ? command
    : `${command}${command.startsWith('npm run ') ? ' --' : ''} ${freshOption}`
}

/** Whether a script of the manifest runs the framework's build, and how likely that script is the one: lower is likelier. */
export function rankOfBuild(manifest: Manifest | null, framework: Framework): number | null {
  const scripts: ManifestScripts = manifest?.texts('scripts') ?? new Map()
  const found = findScript(scripts, framework)
  if (!found) return null
  const rank = likely.indexOf(found[0])
  return rank < 0 ? likely.length : rank
}

/** Where a likely script calls the framework's build; null where none does. */
export function calledIn(manifest: Manifest | null, framework: Framework): Place | null {
  const scripts: ManifestScripts = manifest?.texts('scripts') ?? new Map()
  const found = findScript(scripts, framework)
  return found && likely.includes(found[0]) ? found[2].at : null
}

/** Where the likeliest script starts the framework's build, from the manifest: `client` of `cd client && vite build`; else `''`. */
export function startedIn(manifest: Manifest | null, framework: Framework): string {
  return findScript(manifest?.texts('scripts') ?? new Map(), framework)?.[2].directory ?? ''
}

function findScript(
  scripts: ManifestScripts,
  framework: Framework,
): [string, Reading<string>, BuilderCall] | null {
  const names = namesOf(scripts)
  for (const words of framework.commands) {
    const seen = new Set<string>()
    for (const name of names) {
      const script = scripts.get(name)
      const call = script ? findCall(scripts, name, { words, framework, seen }) : null
      if (script && call) return [name, script, call]
    }
  }
  return null
}

/** The scripts by how likely each is the build. */
function namesOf(scripts: ManifestScripts): ReadonlySet<string> {
  const known = ordered.get(scripts) ?? new Set([...likely, ...inOrder([...scripts.keys()])])
  ordered.set(scripts, known)
  return known
}

/** Every framework asks for the same scripts. */
const ordered = new WeakMap<ManifestScripts, ReadonlySet<string>>()

/** What is called for another purpose may build on its way: a release, a test, a server for development. */
const forAnother =
  /^(?:(?:pre|post)\w|(?:pre|post)?(?:version|publish(?:Only)?|install|prepare|pack)$|(?:test|start|dev|watch|serve|preview|deploy|release|lint|check|storybook)(?:$|[:-]))/

/** Names that say "build" first, then the others as they are written. */
function inOrder(names: readonly string[]): string[] {
  const placeOf = (name: string): number => (/build/i.test(name) ? 0 : 1) + (forAnother.test(name) ? 2 : 0)
  return [...names].sort((a, b) => placeOf(a) - placeOf(b))
}

function runnerOf(manager: PackageManager): string {
  return { npm: 'npx', pnpm: 'pnpm exec', bun: 'bunx', yarn: 'yarn' }[manager]
}

/** What is looked for: the words of a framework's command. */
interface Wanted {
  readonly words: string
  readonly framework: Framework
  /** Scripts that were followed: none calls the builder by a second way that it does not by the first. */
  readonly seen: Set<string>
}

function findCall(scripts: ManifestScripts, name: string, wanted: Wanted, depth = 0): BuilderCall | null {
  const script = scripts.get(name)
  if (!script || depth > deepest || wanted.seen.has(name)) return null
  wanted.seen.add(name)
  let directory = ''
  for (const tokens of commandsOf(script.value)) {
    if (tokens[0] === 'cd' && isBelow(tokens[1])) directory = joinUp(directory, tokens[1])
    const own = callOf(tokens, wanted.words)
    if (own) return { ...own, directory, at: 'file' in script.from ? script.from : null }
    // In another directory, another manifest says what a script is.
    if (directory !== '') continue
    for (const called of scriptsCalled(tokens, scripts, wanted.framework)) {
      const further = findCall(scripts, called, wanted, depth + 1)
      if (further) return further
    }
  }
  return null
}

function isBelow(word: string | undefined): word is string {
  return word !== undefined && /^[\w@./-]+$/.test(word) && !word.startsWith('/')
}

/** The scripts a command runs: `npm run x`, `yarn x`, `run-s x y`, `npm-run-all build:*`, `concurrently "npm:build:*"`. */
function scriptsCalled(
  tokens: readonly string[],
  scripts: ManifestScripts,
  { runsScripts }: Framework,
): string[] {
  const [runner = '', ...rest] = tokens
  if (runsScripts && callOf(tokens, runsScripts.words))
    return [...scripts.keys()].filter((name) => runsScripts.names.test(name))
  if (!/^(?:npm|pnpm|yarn|bun|run-[sp]|npm-run-all2?|concurrently)$/.test(runner)) return []
  // Some pass arguments on with the name, in one word: `"build-only {@}"`.
  return rest.flatMap((word) =>
    namedBy(word.replace(/^(?:npm|pnpm|yarn|bun):/, '').split(' ')[0] ?? word, scripts),
  )
}

/** The scripts of a name or a pattern: `build:*` is one part, `build:**` any number. */
function namedBy(word: string, scripts: ManifestScripts): string[] {
  const stars = word.split('*').length - 1
  // A pattern of very many parts is none that a person wrote, and takes for ever.
  if (stars === 0 || stars > mostStars) return scripts.has(word) ? [word] : []
  const matches = patternOf(word)
  return [...scripts.keys()].filter((name) => matches.test(name))
}

function patternOf(word: string): RegExp {
  const source = word.split(/(\*+)/).map((part) => {
    if (!part.startsWith('*')) return part.replace(/[.+?^${}()|[\]\\]/g, '\\$&')
    return part === '*' ? '[^:]*' : '.*'
  })
  return new RegExp(`^${source.join('')}$`)
}

/** What a command gives the builder, when it runs the builder. */
function callOf(tokens: readonly string[], words: string): BuilderCall | null {
  const [program, ...wanted] = words.split(' ')
  const start = tokens.findIndex((token) => token.replace(/^.*\//, '') === program)
  if (start < 0 || !tokens.slice(0, start).every(mayPrecede)) return null
  const rest = tokens.slice(start + 1)
  for (const word of wanted) {
    const at = rest.indexOf(word)
    if (at < 0) return null
    rest.splice(at, 1)
  }
  const environment = assignments(tokens.slice(0, start))
  return { ...noCall, matched: words, environment, ...readOptions(rest) }
}

/** Runners, wrappers and settings that stand before a program without being it. */
function mayPrecede(token: string): boolean {
  return (
    /^[A-Za-z_]\w*=/.test(token) ||
    /^-/.test(token) ||
    /^(?:npx|pnpm|yarn|bunx?|exec|dlx|run|node|env|cross-env(?:-shell)?|dotenv|time|bundle)$/.test(token) ||
    /^\.env/.test(token)
  )
}

function assignments(tokens: readonly string[]): Map<string, string> {
  return new Map(
    tokens.flatMap((token) => {
      const match = /^([A-Za-z_]\w*)=(.*)$/s.exec(token)
      return match?.[1] ? [[match[1], match[2] ?? ''] as const] : []
    }),
  )
}

function readOptions(tokens: readonly string[]): Pick<BuilderCall, 'options' | 'words'> {
  const options = new Map<string, string>()
  const words: string[] = []
  for (let i = 0; i < tokens.length; i++) {
    const token = tokens[i] ?? ''
    const match = /^--?([\w-]+)(?:[=:](.*))?$/s.exec(token)
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
