import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { withWaiver } from '../../core/configuration/add-waiver.ts'
import { parseConfiguration } from '../../core/configuration/configuration.ts'
import { judges } from '../../core/judge/judges.ts'
import { UsageError } from '../../core/model/site.ts'
import { unknown } from '../../core/model/unknown.ts'
import { configurationName, moduleIn } from '../../node/configuration/load.ts'
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
  const codes = judges.map((judge) => judge.code)
  if (!codes.includes(code)) throw new UsageError(unknown('finding code', code, codes))
  if (reason.trim() === '') throw new UsageError('A waiver needs a reason: --reason "why it is accepted".')
  const module = config === undefined ? moduleIn(path) : null
  if (module !== null) {
    throw new UsageError(`The configuration is ${module}, which is code. Write the waiver into it by hand.`)
  }
  const file = config ?? join(path, configurationName)
  const before = await textOf(file)
  const after = withWaiver(file, before, { code, where, reason: reason.trim(), until })
  // What is written must be read again: a date that is none is said now.
  parseConfiguration(file, after)
  try {
    await writeFile(file, after.endsWith('\n') ? after : `${after}\n`)
  } catch (error) {
    throw new UsageError(`The configuration ${file} could not be written: ${codeOf(error)}.`)
  }
  const days = until === undefined ? '' : ` until ${until}`
  out.write(`${code} is accepted${where === undefined ? '' : ` in ${where}`}${days}. Written to ${file}.\n`)
  return exit.clear
}

async function textOf(file: string): Promise<string> {
  try {
    return await readFile(file, 'utf8')
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return '{}'
    throw new UsageError(`The configuration ${file} could not be read: ${codeOf(error)}.`)
  }
}

function codeOf(error: unknown): string {
  return error instanceof Error && 'code' in error ? String(error.code) : 'unknown error'
}
