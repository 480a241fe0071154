import type { Place } from '../../model/reading.ts'
import type { Unclear } from '../sent.ts'
import { serverPattern } from '../server-pattern.ts'
import type { Directive } from './directives.ts'
import { harmless, isOwnFile, passing } from './known.ts'
import { inherited, type Settings } from './settings.ts'

/** A server block, a location or an `if`: what is said in it, with what it inherits. */
export interface Context {
  readonly kind: 'server' | 'prefix' | 'exact' | 'pattern' | 'named' | 'if'
  /** The path, the name, or the source of the pattern. */
  readonly path: string
  readonly pattern: RegExp | null
  /** Whether patterns beside it are not tried: `^~`. */
  readonly isLast: boolean
  readonly place: Place
  /** What opens the block, as it is written. */
  readonly source: string
  readonly settings: Settings
  /** The directives that change the request or answer it, in their order. */
  readonly steps: readonly Directive[]
  readonly tryFiles: Directive | null
  /** What passes requests on to another server. */
  readonly passes: Directive | null
  readonly isInternal: boolean
  /** Who is not let in gets 403. */
  readonly isDenied: boolean
  readonly inside: readonly Context[]
  /** The first directive in it that is not understood, as far as it may change an answer. */
  readonly unclear: Unclear | null
}

/** The words of the rewrite module. */
const stepNames = new Set(['rewrite', 'return', 'set', 'if', 'break'])

export function isStep({ name }: Directive): boolean {
  return stepNames.has(name)
}

/** Reads a block and what is in it. @param around what it inherits */
export function contextOf(directive: Directive, around: Settings, outer: Context | null): Context {
  const block = directive.block ?? []
  const head = headOf(directive)
  const settings = inherited(around, block, head)
  const of = (name: string): Directive | null => block.findLast((each) => each.name === name) ?? null
  const unclear = block.find((each) => !isUnderstood(each))
  const shell: Context = {
    ...head,
    place: directive.place,
    source: directive.source,
    settings,
    steps: block.filter(isStep),
    tryFiles: of('try_files'),
    passes: block.find(({ name }) => passing.has(name)) ?? null,
    isInternal: (outer?.isInternal ?? false) || of('internal') !== null,
    isDenied: deniesAll(block) ?? outer?.isDenied ?? false,
    inside: [],
    unclear:
      head.kind === 'pattern' && head.pattern === null
        ? { what: `the pattern ${head.path}`, place: directive.place }
        : unclear
          ? { what: unclear.name, place: unclear.place }
          : null,
  }
  const inside = block
    .filter(({ name }) => name === 'location')
    .map((each) => contextOf(each, settings, shell))
  return { ...shell, inside }
}

/** What holds where an `if` does: files are tried by nothing, since that is not inherited. */
export function innerContext(directive: Directive, outer: Context): Context {
  const inner = contextOf({ ...directive, name: 'if' }, outer.settings, outer)
  return { ...inner, path: outer.path, passes: inner.passes ?? outer.passes, inside: [] }
}

function headOf({ name, args }: Directive): Pick<Context, 'kind' | 'path' | 'pattern' | 'isLast'> {
  if (name !== 'location')
    return { kind: name === 'if' ? 'if' : 'server', path: '', pattern: null, isLast: false }
  const [, sign = '', rest = ''] =
    /^(=|\^~|~\*|~)?(.*)$/s.exec(args.length > 1 ? args.slice(0, 2).join('') : (args[0] ?? '')) ?? []
  const isPattern = sign.startsWith('~')
  return {
    kind: isPattern ? 'pattern' : sign === '=' ? 'exact' : rest.startsWith('@') ? 'named' : 'prefix',
    path: rest,
    pattern: isPattern ? serverPattern(rest, sign === '~*') : null,
    isLast: sign === '^~',
  }
}

function isUnderstood(directive: Directive): boolean {
  const { name, args } = directive
  if (name === 'include') return isOwnFile(args[0] ?? '')
  return isStep(directive) || passing.has(name) || harmless(name)
}

/** Whether nobody is let in; null where nothing is said. */
function deniesAll(block: readonly Directive[]): boolean | null {
  const rules = block.filter(({ name }) => name === 'deny' || name === 'allow')
  const [first] = rules
  if (!first) return null
  return rules.every(({ name }) => name === 'deny') && rules.some(({ args: [who] }) => who === 'all')
}
