import { join } from 'node:path'
import { checks } from '../../core/checks/index.ts'
import { withWaiver } from '../../core/configuration/add-waiver.ts'
import { parseConfiguration } from '../../core/configuration/configuration.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { largestText } from '../../core/model/folder.ts'
import { unknown } from '../../core/model/unknown.ts'
import { configurationName, moduleIn } from '../../node/configuration/load.ts'
import { readNamed } from '../../node/regular-file.ts'
import { writeBeside } from '../../node/write-file.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `waive`, as the command line gives them. */
export interface WaiveFlags {
  readonly reason: string
  readonly where?: string
  readonly until?: string
  readonly config?: string
}

/** Accepts a finding: writes a waiver into the configuration, everything else in it as it was. */
export async function waiveCommand(
  code: string,
  path: string,
  { reason, where, until, config }: WaiveFlags,
  { out }: Streams,
): Promise<ExitStatus> {
  const codes = checks.map((check) => check.code)
  if (!codes.includes(code)) throw new UsageError(unknown('finding code', code, codes))
  if (reason.trim() === '') throw new UsageError('A waiver needs a reason: --reason "why it is accepted".')
  const module = config === undefined ? moduleIn(path) : null
  if (module !== null) {
    throw new UsageError(`The configuration is ${module}, which is code. Write the waiver into it by hand.`)
  }
  const file = config ?? join(path, configurationName)
  const before = textOf(file)
  const after = withWaiver(file, before, { code, where, reason: reason.trim(), until })
  // What is written must be read again: a date that is none is said now.
  parseConfiguration(file, after)
  writeBeside(file, after.endsWith('\n') ? after : `${after}\n`)
  const days = until === undefined ? '' : ` until ${until}`
  out.write(`${code} is accepted${where === undefined ? '' : ` in ${where}`}${days}. Written to ${file}.\n`)
  return exit.clear
}

function textOf(file: string): string {
  try {
    return readNamed(file, largestText).toString('utf8')
  } catch (error) {
    if (!(error instanceof FolderError)) throw error
    if (error.reason === 'missing') return '{}'
    throw new UsageError(`The configuration can't be read. ${error.message}`)
  }
}
