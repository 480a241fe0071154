import type { Command } from 'commander'

/** What each command's help ends with: how people call it, and what its exit status says. */
const endings: Readonly<Record<string, { readonly examples: readonly string[]; readonly status: string }>> = {
  check: {
    examples: [
      '--site https://skerryline.example/crossings/',
      'dist --host fallback --format html --out report.html',
    ],
    status: '0 clear, 1 held, 2 wrong use or configuration, 3 nothing could be looked at',
  },
  survey: {
    examples: ['survey', 'survey apps/site --print publish-directory'],
    status: '0 known, 2 wrong use, or several projects and none named, 3 not known, or nothing to look at',
  },
  setup: {
    examples: ['setup', 'setup apps/site --yes --site https://skerryline.example/crossings/ --pipeline'],
    status: '0 written, 2 wrong use, or nothing written, 3 it could not be written',
  },
  rehearse: {
    examples: ['rehearse --browser --shots pictures', 'rehearse dist --stay --port 8080'],
    status: '0 clear, 1 held, 2 wrong use or configuration, 3 nothing could be looked at',
  },
  reach: {
    examples: ['reach --site https://skerryline.example/crossings/'],
    status:
      '0 all allow this site, 1 one does not, 2 wrong use or configuration, 3 nothing could be looked at',
  },
  live: {
    examples: [
      'live --site https://skerryline.example/crossings/',
      'live dist --site https://skerryline.example/ --wait 300',
    ],
    status: '0 arrived, 1 not as built, 2 wrong use or configuration, 3 nothing could be looked at',
  },
  compare: {
    examples: ['compare release.json', 'compare release.json dist --print purge'],
    status: '0 clear, 1 held, 2 wrong use or configuration, 3 nothing could be looked at',
  },
  fix: {
    examples: [
      'fix --site https://skerryline.example/crossings/ > fix.patch',
      'fix --code base/wrong-path --write',
    ],
    status:
      '0 nothing is left that holds it, 1 something is, 2 wrong use or configuration, 3 nothing could be looked at, or the copy could not be built',
  },
  waive: {
    examples: [
      'waive endpoint/loopback --reason "the kiosk runs its own service" --until 2027-01-31',
      'waive --all --reason "as we found it" --until 2027-06-30',
    ],
    status: '0 written, 2 wrong use, 3 it could not be written',
  },
  explain: {
    examples: ['explain base/wrong-path', 'explain cors', 'explain base'],
    status: '0 explained, 2 no such code',
  },
  completion: {
    examples: ['completion bash > /etc/bash_completion.d/wardoscope'],
    status: '0 printed, 2 no such shell',
  },
  demo: { examples: ['demo'], status: '0 shown, 3 the demo builds are not there' },
}

/** Ends the help of each command, and that of the program with the options of the command that is meant when none is named. */
export function withEndings(program: Command): Command {
  for (const command of program.commands) {
    const { examples = [], status = '' } = endings[command.name()] ?? {}
    const lines = examples.map((example) => `  wardoscope ${example}`).join('\n')
    command.addHelpText('after', `\nExamples:\n${lines}\n\nExit status: ${status}`)
  }
  return program.addHelpText('after', () => commonOptions(program))
}

/** The options of the command that is meant when none is named. */
function commonOptions(program: Command): string {
  const check = program.commands.find((command) => command.name() === 'check')
  if (!check) return ''
  const help = check.createHelp()
  const options = help.visibleOptions(check).filter(({ long }) => long !== '--help')
  const width = Math.max(...options.map((option) => help.optionTerm(option).length)) + 2
  const lines = options.map((option) => `  ${help.optionTerm(option).padEnd(width)}${option.description}`)
  return `\nOptions of check:\n${lines.join('\n')}\n\nwardoscope help <command> shows the options of another command, examples and exit statuses.`
}
