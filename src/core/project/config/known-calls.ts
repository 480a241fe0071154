import { projectRoot, resolvePaths } from '../../model/project-path.ts'
import type { Place } from '../../model/reading.ts'
import type { Folded } from '../../syntax/value.ts'

/**
 * Calls whose result is known without running them: wrappers that only give types, path building, reading of
 * environment files, merging. `callee` is the callee's text.
 */
export function knownCall(
  callee: string,
  args: readonly Folded[],
  at: Place,
  environment: ReadonlyMap<string, string>,
): Folded | null {
  const last = callee.slice(callee.lastIndexOf('.') + 1)
  if (/^define[A-Z]\w*$/.test(last)) return args.at(-1) ?? null
  if (/^(?:mergeConfig|merge|deepmerge|smartMerge)$/.test(last)) return merged(args, at)
  // Of these defaults the first that says something counts.
  if (last === 'defu') return merged(args.toReversed(), at)
  if (callee === 'Object.assign') return merged(args, at)
  if (last === 'loadEnv') return environmentObject(environment, at)
  if (last === 'cwd' && callee.startsWith('process')) return { kind: 'value', value: projectRoot, at }
  if (/^(?:path\.)?(?:posix\.)?(?:resolve|join)$/.test(callee)) return path(args, at)
  if (last === 'fileURLToPath' || callee === 'String') return args[0] ?? null
  if (callee === 'URL') return url(args, at)
  return null
}

/** `withPages(config)`, `withPages({ … })(config)`: a plugin adds to the configuration that it is given. */
export function wrapped(callee: string, args: readonly Folded[]): Folded | null {
  const last = args.at(-1)
  return /^(?:\w+\.)?with[A-Z]/.test(callee) && last?.kind === 'object' ? last : null
}

function strings(args: readonly Folded[]): string[] | null {
  const texts = args.map((arg) => (arg.kind === 'value' && typeof arg.value === 'string' ? arg.value : null))
  return texts.every((text) => text !== null) ? texts : null
}

function path(args: readonly Folded[], at: Place): Folded | null {
  const parts = strings(args)
  if (!parts) return null
  const dependsOn = args.flatMap((arg) => (arg.kind === 'value' ? (arg.dependsOn ?? []) : []))[0]
  return { kind: 'value', value: resolvePaths(parts), at, ...(dependsOn === undefined ? {} : { dependsOn }) }
}

/** `new URL('./dist', import.meta.url)`, as a path. */
function url(args: readonly Folded[], at: Place): Folded | null {
  const parts = strings(args)
  if (parts?.[0] === undefined) return null
  const base = parts[1]?.replace('file://', '')
  if (base === undefined) return null
  const directory = base.slice(0, base.lastIndexOf('/'))
  return { kind: 'value', value: resolvePaths([directory, parts[0]]), at }
}

/** Later objects win, objects in them are merged. */
function merged(args: readonly Folded[], at: Place): Folded {
  const members = new Map<string, Folded>()
  let open: boolean | 'environment' = false
  for (const arg of args) {
    if (arg.kind !== 'object') {
      open ||= arg.kind !== 'value'
      continue
    }
    open ||= arg.open
    for (const [name, value] of arg.members) {
      const before = members.get(name)
      members.set(
        name,
        before?.kind === 'object' && value.kind === 'object' ? merged([before, value], value.at) : value,
      )
    }
  }
  return { kind: 'object', members, open, at }
}

function environmentObject(environment: ReadonlyMap<string, string>, at: Place): Folded {
  const members = new Map<string, Folded>()
  for (const [name, value] of environment) members.set(name, { kind: 'value', value, at })
  return { kind: 'object', members, open: 'environment', at }
}
