import { isMap, isPair, isScalar, isSeq, type Node, parseDocument, type Scalar, visit } from 'yaml'

/** What a pipeline runs after the build. */
const command = 'npx wardoscope check'

/** A step for the check, and the line behind which it stands, from 1. */
export interface PipelineStep {
  readonly line: number
  readonly text: string
}

/**
 * The text of a pipeline file with a step behind the one that builds: an item of the list in which that stands, in its form. Null where no
 * list item runs one of these commands, where one runs the check already, and for what is no YAML.
 * @param commands the words that build, as in `npm run build`
 */
export function withPipelineStep(
  source: string,
  commands: readonly string[],
): (PipelineStep & { readonly whole: string }) | null {
  const parsed = parseDocument(source)
  if (parsed.errors.length > 0 || source.includes('wardoscope')) return null
  const found = itemThatRuns(parsed.contents, commands)
  if (!found?.range) return null
  const [start, , end] = found.range
  const from = source.lastIndexOf('\n', start - 1) + 1
  const indent = source.slice(from, start).replace(/-\s*$/, '')
  // Only an item that begins its own line can be followed by another.
  if (!/^\s*$/.test(indent) || !/-\s*$/.test(source.slice(from, start))) return null
  const text = stepLike(found).map((line, index) => `${indent}${index === 0 ? '- ' : '  '}${line}\n`)
  const at = endOfItem(source, end)
  const before = source.slice(0, at)
  const gap = before.endsWith('\n') ? '' : '\n'
  return {
    line: before.trimEnd().split('\n').length,
    text: text.join(''),
    whole: `${before}${gap}${text.join('')}${source.slice(at)}`,
  }
}

/** Where the lines of an item end: blank lines and comments behind it are those of what follows. */
function endOfItem(source: string, end: number): number {
  const lines = source.slice(0, end).split('\n')
  // What ends within a line ends there.
  if (lines.at(-1) === '') lines.pop()
  while (lines.length > 1 && /^\s*(?:#|$)/.test(lines.at(-1) ?? '')) lines.pop()
  const kept = lines.join('\n').length
  return Math.min(source.length, kept + (source[kept] === '\n' ? 1 : 0))
}

/** The item of a list that runs one of these commands: a text, or an object that holds it. */
function itemThatRuns(contents: Node | null, commands: readonly string[]): Node | null {
  let found: Node | null = null
  visit(contents, {
    Scalar(_, node, path) {
      if (found || !runs(node, commands)) return
      const index = path.findLastIndex((each) => isSeq(each))
      const item = index < 0 ? undefined : (path[index + 1] ?? node)
      // A key that holds a list of steps may itself be in a list: the innermost one is meant.
      if (item === undefined || isPair(item)) return
      found = item as Node
    },
  })
  return found
}

function runs({ value }: Scalar, commands: readonly string[]): boolean {
  if (typeof value !== 'string') return false
  const lines = value.split('\n').map((line) => line.trim())
  return commands.some((words) => lines.includes(words))
}

/** The step in the form of its neighbour: a command alone, or an object with a name where that has one. */
function stepLike(item: Node): string[] {
  if (!isMap(item)) return [command]
  const keys = item.items.flatMap(({ key }) => (isScalar(key) ? [String(key.value)] : []))
  const runKey = keys.find((key) => /^(?:run|script|command|cmd|sh|bash)$/i.test(key)) ?? 'run'
  const isNamed = keys.includes('name')
  return [...(isNamed ? ['name: Check what ships'] : []), `${runKey}: ${command}`]
}
