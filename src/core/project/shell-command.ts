import { type ParseEntry, parse } from 'shell-quote'

/** One command of a script, as a shell starts it. */
export type Words = readonly string[]

/** Operators that end a command and begin another one. */
const separators = new Set(['&&', '||', ';', '&', '|', '|&', '(', ')', ';;'])

/**
 * Splits a script into its commands and their words, as a shell does: quotes and escapes are read; a comment, a redirection
 * and what follows it in the same command are left out. Variables stay as they are written, since nobody knows their values.
 */
export function commandsOf(script: string): readonly Words[] {
  const known = parsed.get(script)
  if (known) return known
  if (parsed.size >= mostKept) parsed.clear()
  const commands = split(script)
  parsed.set(script, commands)
  return commands
}

/** Every framework asks for the same scripts. */
const parsed = new Map<string, readonly Words[]>()
const mostKept = 2_000

function split(script: string): Words[] {
  const commands: string[][] = []
  let words: string[] = []
  let open = true
  for (const entry of entriesOf(script)) {
    if (typeof entry === 'string') {
      if (open) words.push(entry)
    } else if ('op' in entry && entry.op === 'glob') {
      if (open) words.push(entry.pattern)
    } else if ('op' in entry && separators.has(entry.op)) {
      commands.push(words)
      words = []
      open = true
    } else if ('op' in entry) {
      if (open) words = withoutDescriptor(words, entry.op, script)
      open = false
    } else break
  }
  return [...commands, words].filter((each) => each.length > 0)
}

/** A script with a substitution that never ends is no command of ours. */
function entriesOf(script: string): ParseEntry[] {
  const oneLine = script.replaceAll(/\\\r?\n/g, ' ').replaceAll(/\r?\n/g, ' ; ')
  try {
    return parse(oneLine, (name) => `$${/^\w+$/.test(name) ? name : `{${name}}`}`)
  } catch {
    return []
  }
}

/** The digit of `2>` is no word of the command. */
function withoutDescriptor(words: string[], operator: string, script: string): string[] {
  const last = words.at(-1) ?? ''
  return /^\d$/.test(last) && script.includes(`${last}${operator}`) ? words.slice(0, -1) : words
}
