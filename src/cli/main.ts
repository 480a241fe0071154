import { existsSync } from 'node:fs'
import { Command, CommanderError, Option } from 'commander'
import { FolderError, UsageError } from '../core/model/errors.ts'
import { nearest, printable } from '../core/model/text.ts'
import { unknown } from '../core/model/unknown.ts'
import { formats } from '../core/report/formats/index.ts'
import { version } from '../node/version.ts'
import type { CheckFlags } from './commands/check.ts'
import type { CompareFlags } from './commands/compare.ts'
import type { FixFlags } from './commands/fix.ts'
import type { LiveFlags } from './commands/live.ts'
import type { ReachFlags } from './commands/reach.ts'
import type { RehearseFlags } from './commands/rehearse.ts'
import type { SetupFlags } from './commands/setup.ts'
import type { SurveyFlags } from './commands/survey.ts'
import type { WaiveFlags } from './commands/waive.ts'
import { withEndings } from './help.ts'
import { Deliveries } from './output.ts'
import { type ExitStatus, exit, type Streams } from './streams.ts'

/** Runs the command line and gives its exit status. Never throws: what goes wrong is one sentence on `err`. */
export async function main(args: readonly string[], streams: Streams): Promise<ExitStatus> {
  let status: ExitStatus = exit.clear
  const program = buildProgram(streams, (result) => {
    status = result
  })
  try {
    refuseUnknown(args[0], program)
    await program.parseAsync(args, { from: 'user' })
    return status
  } catch (error) {
    return complain(error, streams)
  }
}

/** A word that is nearly a command and no path is a slip of the hand. @throws {UsageError} */
function refuseUnknown(word: string | undefined, { commands }: Command): void {
  const names = commands.map((command) => command.name())
  if (word === undefined || !/^[a-z]+$/.test(word) || names.includes(word) || word === 'help') return
  if (nearest(word, names) === null || existsSync(word)) return
  throw new UsageError(unknown('command', word, names))
}

// Each command is loaded when it runs: a parser that explain does not need costs a tenth of a second.
function buildProgram(streams: Streams, done: (status: ExitStatus) => void): Command {
  const program = new Command('wardoscope')
    .description("Looks at a build folder the way its host and a visitor's browser will, before it ships.")
    .version(version)
    .exitOverride()
    .configureOutput({
      writeOut: (text) => streams.out.write(text),
      writeErr: (text) => streams.err.write(text),
      outputError: (text, write) => write(asSentence(text)),
    })
  const deliveries = new Deliveries()
  const color = new Option('--no-color', 'write without colour')

  lookingInto(program.command('check', { isDefault: true }), deliveries)
    .description('may this ship? (the command when none is named)')
    .option('--route <path>', 'a route a visitor can open directly; repeatable', collect)
    .option('--all', 'check every front end of the repository, each with its own configuration')
    .option('--watch', 'check again whenever the folder has come to rest, and tell what changed')
    .option('--build', 'run the build command first; what it prints goes to standard error')
    .option('--record <file>', 'keep what ships in a file, for compare to read next time')
    .option(
      '--changed-since <revision>',
      'put first what the change since then touches: findings of its lines, then of its files',
    )
    .option('--only-changed', 'with --changed-since, list no others; they count all the same')
    .option('--quiet', 'say nothing when it is clear, and a line for each cause when it is held')
    .option('--variables', 'show every variable with what became of it')
    .option('--routes', 'show every route with what answers it')
    .option('--weight', "show what each route's first visit downloads, and the largest files")
    .option('--timings', 'show where the time went')
    .addOption(color)
    .action(async (path: string, flags: Omit<CheckFlags, 'deliveries'>) => {
      const given = { ...flags, deliveries: deliveries.all }
      if (flags.watch) {
        const { watchCommand } = await import('./commands/watch.ts')
        done(await watchCommand(path, given, streams))
        return
      }
      if (flags.all) {
        const { checkAllCommand } = await import('./commands/check-all.ts')
        done(await checkAllCommand(path, given, streams))
        return
      }
      const { checkCommand } = await import('./commands/check.ts')
      done(await checkCommand(path, given, streams))
    })

  lookingInto(program.command('reach'), deliveries)
    .description('do the services that the build calls allow this site? Asks them over the network')
    .option('--method <name>', 'how the page asks, where the build does not show it')
    .option('--header <name=value>', 'a header that the page sends; repeatable', collect)
    .option('--credentials', 'the page sends cookies or a login along')
    .option('--instead <origin=address>', 'ask an origin at another address; repeatable', collect)
    .option('--timeout <seconds>', 'the longest wait for one answer', '10')
    .addOption(color)
    .action(async (path: string, flags: Omit<ReachFlags, 'deliveries'>) => {
      const { reachCommand } = await import('./commands/reach.ts')
      done(await reachCommand(path, { ...flags, deliveries: deliveries.all }, streams))
    })

  lookingInto(program.command('live'), deliveries)
    .description('is this folder what the address serves now? Asks it over the network')
    .option('--route <path>', 'a route a visitor can open directly; repeatable', collect)
    .option('--before <record or folder>', 'the release before this one, to tell old content from another')
    .option('--at-once <number>', 'requests that are under way together', '6')
    .option('--per-second <number>', 'requests in a second at the most')
    .option('--timeout <seconds>', 'the longest time for one answer', '10')
    .option('--wait <seconds>', 'look again until all has arrived, for so long at the most')
    .option('--write-host <file>', 'write the host as it is seen to answer, for --host')
    .option('--instead <origin=address>', 'ask the origin at another address; repeatable', collect)
    .option(
      '--credentials <variable>',
      'the variable that holds what a protected address wants in the header authorization',
    )
    .addOption(color)
    .action(async (path: string, flags: Omit<LiveFlags, 'deliveries'>) => {
      const { liveCommand } = await import('./commands/live.ts')
      done(await liveCommand(path, { ...flags, deliveries: deliveries.all }, streams))
    })

  lookingInto(program.command('rehearse'), deliveries)
    .description('serves the folder as its host will, and visits every route as a stranger would')
    .option('--route <path>', 'a route a visitor can open directly; repeatable', collect)
    .option('--build', 'run the build command first; what it prints goes to standard error')
    .option('--browser [program]', 'visit with a real browser')
    .option('--width <pixels>', 'a width of the window; repeatable; 390, 820 and 1280 without it', collect)
    .option('--online', 'send what pages request from other origins')
    .option('--answers <file>', 'what the services answer that the pages call, as JSON by origin and path')
    .option('--har <file>', 'write what was requested as an HTTP archive')
    .option('--shots <dir>', 'keep a picture of every route at every width')
    .option('--page-time <seconds>', 'the longest time for one page', '15')
    .option('--time <seconds>', 'the longest time for all pages', '600')
    .option('--stay', 'go on serving for a person, and tell every request')
    .option('--port <number>', 'where to serve; a free port without it', '0')
    .option('--listen <address>', 'which address of this machine to serve at', '127.0.0.1')
    .addOption(color)
    .action(async (path: string, flags: Omit<RehearseFlags, 'deliveries'>) => {
      const { rehearseCommand } = await import('./commands/rehearse.ts')
      done(await rehearseCommand(path, { ...flags, deliveries: deliveries.all }, streams))
    })

  lookingInto(
    program.command('compare').argument('<earlier>', 'a release record, or an older build folder'),
    deliveries,
  )
    .description(
      'what does this release change? Files, what to purge, chunks that open pages miss, routes, services',
    )
    .option('--print <list>', 'print one list by itself, a line each: purge, gone, added or chunks-gone')
    .option('--route <path>', 'a route a visitor can open directly; repeatable', collect)
    .addOption(color)
    .action(async (earlier: string, path: string, flags: Omit<CompareFlags, 'deliveries'>) => {
      const { compareCommand } = await import('./commands/compare.ts')
      done(await compareCommand(earlier, path, { ...flags, deliveries: deliveries.all }, streams))
    })

  program
    .command('survey')
    .description(
      'what is this? The build command, publish directory, base path and more, with where each was read',
    )
    .argument('[path]', 'a project', '.')
    .option('--project <name>', 'the project, by name or directory, in a repository of several')
    .option('--print <reading>', 'print one bare value, as publish-directory or build-command')
    .option('--format <name>', 'text or json', 'text')
    .option('--out <file>', 'write the result to a file')
    .addOption(color)
    .action(async (path: string, flags: SurveyFlags) => {
      const { surveyCommand } = await import('./commands/survey.ts')
      done(await surveyCommand(path, flags, streams))
    })

  program
    .command('setup')
    .description(
      'writes a configuration: surveys the project, asks what it can not know, and shows what it will write',
    )
    .argument('[path]', 'a project', '.')
    .option('--yes', 'ask nothing, and take what the project says of itself')
    .option('--site <url>', 'where it will be served, as in https://skerryline.example/crossings/')
    .option('--project <name>', 'the project, by name or directory, in a repository of several')
    .option('--typescript', 'write a module with types in place of JSON')
    .option('--pipeline', 'add a step behind the build in the pipeline file that is there')
    .action(async (path: string, flags: SetupFlags) => {
      const { setupCommand } = await import('./commands/setup.ts')
      done(await setupCommand(path, flags, streams))
    })

  into(program.command('fix'))
    .description(
      'makes the edits that are known in a copy, builds and checks it, and prints what is proved as a patch',
    )
    .option('--code <code>', 'only findings of this code; repeatable', collect)
    .option('--route <path>', 'a route a visitor can open directly; repeatable', collect)
    .option('--value <name=value>', 'what a variable is to be, where a fix needs it; repeatable', collect)
    .option('--write', 'make the proved edits in the project')
    .option('--anyway', 'write to files too whose changes are not committed')
    .option('--no-build', 'build nothing, and give the edits unproved')
    .option('--timeout <seconds>', 'the longest time for all builds', '600')
    .addOption(color)
    .action(async (path: string, flags: FixFlags) => {
      const { fixCommand } = await import('./commands/fix.ts')
      done(await fixCommand(path, flags, streams))
    })

  program
    .command('waive')
    .description('accepts a finding in the configuration file, with a reason')
    .argument('[code]', 'a finding code, as in endpoint/loopback; none with --all')
    .argument('[path]', 'the project; "." without it')
    .requiredOption('--reason <text>', 'why it is accepted')
    .option(
      '--all',
      'accept each finding that stands today by itself, in a file beside the configuration: what is new holds',
    )
    .option('--where <pattern>', 'the files it is meant for, as in assets/legacy-*.js')
    .option('--until <date>', 'the last day on which it holds, as in 2027-01-31')
    .option('--site <url>', 'with --all, where it will be served; repeatable', collect)
    .option('--folder <dir>', 'with --all, the build folder')
    .option('--project <name>', 'with --all, the project, in a repository of several')
    .option('--host <preset or file>', 'with --all, how the host answers')
    .option('--config <file>', 'the configuration, when it is not wardoscope.config.json in the project')
    .option('--no-cache', 'with --all, read every file anew')
    .action(async (code: string | undefined, path: string | undefined, flags: WaiveFlags) => {
      const { waiveAllCommand, waiveCommand } = await import('./commands/waive.ts')
      if (flags.all && path !== undefined)
        throw new UsageError('With --all no code is named: all that stands is accepted. Give the path alone.')
      if (flags.all) done(await waiveAllCommand(code ?? '.', flags, streams))
      else if (code !== undefined) done(await waiveCommand(code, path ?? '.', flags, streams))
      else
        throw new UsageError(
          'Name the finding code that is accepted, as in waive endpoint/loopback, or give --all.',
        )
    })

  program
    .command('explain')
    .description('what a finding means and how to fix it, by its code or by words; alone, a list of all')
    .argument('[text]', 'a finding code, an area of codes, or words such as cors or "mixed content"')
    .option('--site <url>', 'where the site is served, for the rules that servers need there')
    .addOption(color)
    .action(async (code: string | undefined, flags: { color: boolean; site?: string }) => {
      const { explainCommand } = await import('./commands/explain.ts')
      done(await explainCommand(code, flags, streams))
    })

  program
    .command('demo')
    .description('checks builds of a demo site, one sound and the others faulty')
    .addOption(color)
    .action(async (flags: { color: boolean }) => {
      const { demoCommand } = await import('./commands/demo.ts')
      done(await demoCommand(flags.color, streams))
    })

  program
    .command('completion')
    .description('prints a script that teaches a shell these commands and options')
    .argument('<shell>', 'bash, zsh or fish')
    .action(async (shell: string) => {
      const { completionFor } = await import('./completion.ts')
      streams.out.write(completionFor(shell, program))
    })

  return withEndings(program)
}

/** The options of every command that looks into a build and gives a report of it. */
function lookingInto(command: Command, deliveries: Deliveries): Command {
  return into(command)
    .option(
      '--format <name>',
      `${formats.map(({ name }) => name).join(', ')}; repeatable, each with its own --out`,
      (name: string) => deliveries.format(name),
    )
    .option('--out <file>', 'write the result of the format before it to a file', (file: string) =>
      deliveries.out(file),
    )
    .option('--summary <file>', 'add the result, as Markdown, to the end of a file', (file: string) =>
      deliveries.summary(file),
    )
    .option(
      '--hold-on <what>',
      'what holds the build, beside blockers: caution, unused-waivers; repeatable',
      collect,
    )
}

/** The options by which a build is found, and how it is served. */
function into(command: Command): Command {
  return command
    .argument('[path]', 'a project, a build folder, or a zip of either', '.')
    .option(
      '--site <url>',
      'where it will be served, as in https://skerryline.example/crossings/; repeatable',
      collect,
    )
    .option('--folder <dir>', 'the build folder, when it is not the one the project names')
    .option('--project <name>', 'the project, by name or directory, in a repository of several')
    .option(
      '--host <preset or file>',
      'how the host answers: files, fallback, error-page, clean-urls, or a file',
    )
    .option('--config <file>', 'the configuration, when it is not wardoscope.config.json in the project')
    .option('--no-cache', 'read every file anew, and keep nothing for the next run')
}

/** `error: unknown option '--sit'\n(Did you mean --site?)` in the form of every other complaint. */
function asSentence(text: string): string {
  const [first = '', ...more] = text
    .trim()
    .replace(/^error: /, '')
    .split('\n')
  const sentence = first.charAt(0).toUpperCase() + first.slice(1).replace(/\.?$/, '.')
  const hint = more.map((line) => line.replace(/^\((.*)\)$/, '$1'))
  return `wardoscope: ${[sentence, ...hint].join(' ')}\n`
}

function collect(value: string, before: readonly string[] = []): string[] {
  return [...before, value]
}

function complain(error: unknown, { err }: Streams): ExitStatus {
  if (error instanceof CommanderError) {
    // Help and version are requested; everything else has been said already.
    return error.exitCode === 0 ? exit.clear : exit.usage
  }
  if (error instanceof UsageError) {
    const option = error.setting === null ? '' : ` Use --${error.setting}.`
    err.write(`wardoscope: ${printable(error.message)}${option}\n`)
    return exit.usage
  }
  if (error instanceof FolderError) {
    err.write(`wardoscope: ${printable(error.message)}\n`)
    return exit.unseen
  }
  const message = error instanceof Error ? error.message : String(error)
  err.write(`wardoscope: something went wrong that is a defect of ours: ${printable(message)}\n`)
  return exit.unseen
}
