import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { createTwoFilesPatch } from 'diff'
import { applied, isPlaced } from '../../core/edits/edit.ts'
import { placeEdits } from '../../core/edits/place-edits.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { type Folder, largestText } from '../../core/model/folder.ts'
import { parseSite } from '../../core/model/site.ts'
import { printable } from '../../core/model/text.ts'
import { openProject } from '../../core/pipeline/open.ts'
import { readDeployFiles } from '../../core/project/declared/deploy-files.ts'
import type { Survey } from '../../core/project/survey.ts'
import { type Answers, configurationFile, type NewFile } from '../../core/setup/configuration-text.ts'
import { withPipelineStep } from '../../core/setup/pipeline-step.ts'
import { type Proposals, proposalsFor } from '../../core/setup/proposals.ts'
import { configurationNames } from '../../node/configuration/load.ts'
import { firstOf } from '../../node/configuration/trust.ts'
import { DiskFolder } from '../../node/disk-folder.ts'
import { repositoryOf } from '../../node/opening/above.ts'
import { locate } from '../../node/opening/locate.ts'
import { readNamed } from '../../node/regular-file.ts'
import { writeBeside } from '../../node/write-file.ts'
import { ask, confirmed } from '../questions.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `setup`. */
export interface SetupFlags {
  readonly yes?: boolean
  readonly typescript?: boolean
  readonly pipeline?: boolean
  readonly project?: string
  readonly site?: string
}

/** The script of the manifest that checks what is built. */
const scriptName = 'check:build'

/** A change of a file: what it holds now, and what it is to hold. */
interface Change {
  readonly at: string
  readonly shown: string
  readonly before: string | null
  readonly after: string
}

/** Writes a configuration: surveys the project, asks what it can't know, and shows what it will write. */
export async function setupCommand(path: string, flags: SetupFlags, streams: Streams): Promise<ExitStatus> {
  const { project, survey, directory } = await projectAt(path, flags.project ?? null)
  const known = firstOf(directory, configurationNames)
  if (known !== null)
    throw new UsageError(
      `${join(path, known)} is there already, and nothing is written over it. Change it, or remove it first.`,
    )
  const isAsked = flags.yes !== true
  if (isAsked && (process.stdin.isTTY !== true || streams.err.isTTY !== true))
    throw new UsageError(
      'setup asks at a terminal, and this is none. Give --yes to take what the project says of itself.',
    )
  if (flags.typescript === true && !runsTypeScript(process.versions.node))
    throw new UsageError(
      `This Node (${process.versions.node}) can't run a configuration in TypeScript: that needs 22.18 or later. Leave --typescript out.`,
    )
  const proposals = await proposalsFor(project, survey)
  const answers = isAsked ? await ask(proposals, flags.site) : taken(proposals, flags.site)
  if (answers === null) return leave(streams)
  const changes = [
    newFile(directory, configurationFile(answers, flags.typescript === true ? 'typescript' : 'json')),
    ...(await scriptIn(directory, survey, streams)),
    ...(flags.pipeline === true ? await stepIn(directory, survey) : []),
  ]
  for (const change of changes) streams.out.write(patchOf(change))
  if (isAsked && !(await confirmed(changes.length))) return leave(streams)
  for (const { at, after } of changes) writeBeside(at, after)
  streams.err.write(`Written: ${changes.map(({ shown }) => shown).join(', ')}\n`)
  return exit.clear
}

/** Types are taken away as a module is loaded, from these versions on. */
function runsTypeScript(version: string): boolean {
  const [major = 0, minor = 0] = version.split('.').map(Number)
  return major > 22 || (major === 22 && minor >= 18)
}

function leave({ err }: Streams): ExitStatus {
  err.write('Nothing was written.\n')
  return exit.usage
}

async function projectAt(
  path: string,
  name: string | null,
): Promise<{ project: Folder; survey: Survey; directory: string }> {
  const { folder, opening } = await locate(path)
  const found = await openProject(folder, { project: name, ...opening })
  const origin = found?.project.origin
  if (!found || !origin)
    throw new UsageError(
      `${path} is no project on this disk: a configuration stands beside a manifest or a framework's own configuration.`,
    )
  return { project: found.project, survey: found.survey, directory: join(origin.root, origin.directory) }
}

/** What is taken without a question. */
function taken({ site, host }: Proposals, said: string | undefined): Answers {
  return {
    site: said === undefined ? (site?.value ?? null) : parseSite(said).address,
    // How a host answers is not guessed: what nobody names is assumed by the check, and said.
    host: host.value.startsWith('./') ? host.value : null,
    routes: [],
    holdOn: [],
  }
}

function newFile(directory: string, { file, text }: NewFile): Change {
  return { at: join(directory, file), shown: file, before: null, after: text }
}

/** One more script of the manifest, where it has none of that name. */
async function scriptIn(directory: string, { build }: Survey, { err }: Streams): Promise<Change[]> {
  const at = join(directory, 'package.json')
  const before = textOf(at)
  if (before === null) return []
  if (new RegExp(`"${scriptName}"\\s*:`).test(before)) {
    err.write(`package.json has a script "${scriptName}" already, which stays as it is.\n`)
    return []
  }
  const write = `scripts: { '${scriptName}': 'wardoscope check${build ? '' : ' .'}' },`
  const [edit] = await placeEdits([{ file: 'package.json', line: null, write }], async () => before)
  const after = edit && isPlaced(edit) ? applied(before, [edit]) : null
  return after === null ? [] : [{ at, shown: 'package.json', before, after }]
}

/** @throws {UsageError} when no pipeline file of the repository builds in a list of steps */
async function stepIn(directory: string, { build }: Survey): Promise<Change[]> {
  const root = repositoryOf(directory) ?? directory
  const { data } = await readDeployFiles(await DiskFolder.open(root))
  const commands = [build?.command.value, build?.script ?? undefined].flatMap((each) => each ?? [])
  for (const { file } of data) {
    const at = join(root, file)
    const before = /\.ya?ml$/.test(file) ? textOf(at) : null
    const step = before === null ? null : withPipelineStep(before, commands)
    if (before !== null && step) return [{ at, shown: file, before, after: step.whole }]
  }
  throw new UsageError(
    `No pipeline file here runs ${commands[0] ?? 'the build'} as a step of a list, so none can get a step behind it. Leave --pipeline out, and add  npx wardoscope check  yourself.`,
  )
}

function patchOf({ shown, before, after }: Change): string {
  const patch = createTwoFilesPatch(
    before === null ? '/dev/null' : `a/${shown}`,
    `b/${shown}`,
    before ?? '',
    after,
    undefined,
    undefined,
    { context: 3 },
  )
  return `${patch
    .replace(/^={3,}\n/, '')
    .split('\n')
    .map(printableLine)
    .join('\n')}\n`
}

/** Blanks at the beginning of a line are part of it. */
function printableLine(line: string): string {
  const [blanks = ''] = /^[ +-]?\s*/.exec(line) ?? []
  return blanks + printable(line.slice(blanks.length))
}

function textOf(at: string): string | null {
  if (!existsSync(at)) return null
  try {
    return readNamed(at, largestText).toString('utf8')
  } catch (error) {
    if (error instanceof FolderError && error.reason === 'missing') return null
    throw error
  }
}
