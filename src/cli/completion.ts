import type { Command, Option } from 'commander'
import { checks } from '../core/checks/index.ts'
import { presets } from '../core/host/presets.ts'
import { UsageError } from '../core/model/errors.ts'
import { unknown } from '../core/model/unknown.ts'
import { holdable } from '../core/pipeline/options.ts'
import { formats } from '../core/report/formats/index.ts'

/** A command as a shell completes it. */
interface Completed {
  readonly name: string
  readonly description: string
  readonly options: readonly {
    readonly name: string
    readonly description: string
    readonly takes: boolean
  }[]
}

/** What may follow an option, where that is a short list; by the option's name. */
const values: Readonly<Record<string, readonly string[]>> = {
  '--format': formats.map(({ name }) => name),
  '--hold-on': holdable,
  '--host': presets.map(({ name }) => name),
  '--code': checks.map(({ code }) => code),
}

const shells: Readonly<Record<string, (commands: readonly Completed[]) => string>> = { bash, zsh, fish }

/** The script that teaches a shell the commands and options. @throws {UsageError} for a shell that is not known */
export function completionFor(shell: string, { commands }: Command): string {
  const write = shells[shell]
  if (!write) throw new UsageError(unknown('shell', shell, Object.keys(shells)))
  return write(commands.map(completed))
}

function completed(command: Command): Completed {
  return {
    name: command.name(),
    description: command.description(),
    options: command.options.map((option) => ({
      name: longest(option),
      description: option.description,
      takes: option.required || option.optional,
    })),
  }
}

function longest({ long, short }: Option): string {
  return long ?? short ?? ''
}

function bash(commands: readonly Completed[]): string {
  const names = commands.map(({ name }) => name)
  const ofCommands = commands.map(
    ({ name, options }) => `    ${name}) words="${options.map((each) => each.name).join(' ')}" ;;`,
  )
  const ofOptions = Object.entries(values).map(
    ([option, list]) => `    ${option}) COMPREPLY=($(compgen -W "${list.join(' ')}" -- "$word")); return ;;`,
  )
  return `# wardoscope completion bash > /etc/bash_completion.d/wardoscope
_wardoscope() {
  local word="\${COMP_WORDS[COMP_CWORD]}" before="\${COMP_WORDS[COMP_CWORD-1]}" command='' words='' i
  for ((i = 1; i < COMP_CWORD; i++)); do
    case "\${COMP_WORDS[i]}" in ${names.join('|')}) command="\${COMP_WORDS[i]}"; break ;; esac
  done
  case "$before" in
${ofOptions.join('\n')}
  esac
  if [[ "$command" == explain ]]; then
    COMPREPLY=($(compgen -W "${values['--code']?.join(' ')}" -- "$word")); return
  fi
  case "\${command:-check}" in
${ofCommands.join('\n')}
  esac
  [[ -z "$command" ]] && words="$words ${names.join(' ')}"
  COMPREPLY=($(compgen -W "$words" -- "$word") $(compgen -f -- "$word"))
}
complete -o filenames -F _wardoscope wardoscope
`
}

function zsh(commands: readonly Completed[]): string {
  const list = commands.map(({ name, description }) => `    ${quoted(`${name}:${description}`)}`)
  const cases = commands.map(({ name, options }) => {
    const lines = options.map(
      ({ name: option, description, takes }) =>
        `      ${quoted(`*${option}[${description.replace(/[[\]:]/g, ' ')}]${takes ? valueFor(option) : ''}`)}`,
    )
    const rest = name === 'explain' ? `'*:code:(${values['--code']?.join(' ')})'` : "'*:path:_files'"
    return `    ${name}) _arguments \\\n${[...lines, `      ${rest}`].join(' \\\n')} ;;`
  })
  return `#compdef wardoscope
# wardoscope completion zsh > "\${fpath[1]}/_wardoscope"
_wardoscope() {
  local -a commands
  commands=(
${list.join('\n')}
  )
  if (( CURRENT == 2 )) && [[ "$words[2]" != -* ]]; then
    _describe command commands
    _files
    return
  fi
  local command="$words[2]"
  if (( ! \${commands[(I)$command:*]} )); then command=check; else shift words; (( CURRENT-- )); fi
  case "$command" in
${cases.join('\n')}
  esac
}
# Loaded by the shell when it is first needed, it is called at once.
if [[ "$funcstack[1]" == _wardoscope ]]; then _wardoscope "$@"; else compdef _wardoscope wardoscope; fi
`
}

function valueFor(option: string): string {
  const list = values[option]
  return list ? `:value:(${list.join(' ')})` : ':value:_files'
}

function fish(commands: readonly Completed[]): string {
  const names = commands.map(({ name }) => name).join(' ')
  const none = `not __fish_seen_subcommand_from ${names}`
  const lines = commands.flatMap(({ name, description, options }) => {
    const here =
      name === 'check'
        ? `${none}; or __fish_seen_subcommand_from check`
        : `__fish_seen_subcommand_from ${name}`
    return [
      `complete -c wardoscope -n ${quoted(none)} -a ${name} -d ${quoted(description)}`,
      ...options.map(({ name: option, description: text, takes }) => {
        const list = values[option]
        const value = list ? ` -xa ${quoted(list.join(' '))}` : takes ? ' -r' : ''
        return `complete -c wardoscope -n ${quoted(here)} -l ${option.slice(2)}${value} -d ${quoted(text)}`
      }),
    ]
  })
  const codes = `complete -c wardoscope -n '__fish_seen_subcommand_from explain' -xa ${quoted(values['--code']?.join(' ') ?? '')}`
  return `# wardoscope completion fish > ~/.config/fish/completions/wardoscope.fish\n${[...lines, codes].join('\n')}\n`
}

/** A text as these shells take it, whole. */
function quoted(text: string): string {
  return `'${text.replaceAll("'", '’')}'`
}
