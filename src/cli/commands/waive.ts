import { dirname, join } from 'node:path'
import { checks } from '../../core/checks/index.ts'
import { acceptedName, acceptedText } from '../../core/configuration/accepted.ts'
import { withWaiver } from '../../core/configuration/add-waiver.ts'
import { parseConfiguration } from '../../core/configuration/configuration.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { largestText } from '../../core/model/folder.ts'
import { counted } from '../../core/model/text.ts'
import { unknown } from '../../core/model/unknown.ts'
import { check } from '../../core/pipeline/check.ts'
import { configurationName, moduleIn } from '../../node/configuration/load.ts'
import { readNamed } from '../../node/regular-file.ts'
import { writeBeside } from '../../node/write-file.ts'
import { type FolderFlags, folderOptions } from '../options.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** The options of `waive`, as the command line gives them. */
export interface WaiveFlags extends FolderFlags {
  readonly reason: string
  readonly where?: string
  readonly until?: string
  readonly all?: boolean
}

/** Accepts all that stands today, one by one: what is new holds. */
export async function waiveAllCommand(
  path: string,
  flags: WaiveFlags,
  streams: Streams,
): Promise<ExitStatus> {
  const reason = reasonOf(flags.reason)
  notOver(flags.until)
  const { folder, options } = await folderOptions(path, flags, streams)
  const { findings } = await check(folder, options)
  const standing = findings.filter(({ severity }) => severity !== 'note')
  const kept = standing.filter(({ waived, waiver }) => !waived || waiver?.reason === reason)
  if (kept.length === 0) {
    streams.out.write('Nothing stands that would be accepted. Nothing was written.\n')
    return exit.clear
  }
  const directory = flags.config === undefined ? path : dirname(flags.config)
  const file = join(directory, acceptedName)
  writeBeside(file, acceptedText(kept, reason, flags.until))
  const days = flags.until === undefined ? '' : ` until ${flags.until}`
  streams.out.write(
    `${counted(kept.length, 'finding')} accepted${days}; what is new holds. Written to ${file}.\n`,
  )
  return exit.clear
}

function reasonOf(text: string): string {
  if (text.trim() !== '') return text.trim()
  throw new UsageError('A waiver needs a reason: --reason "why it is accepted".')
}

/** @throws {UsageError} when it is no day, or one that is over */
function notOver(until: string | undefined): void {
  if (until === undefined) return
  if (!/^\d{4}-\d{2}-\d{2}$/.test(until) || Number.isNaN(Date.parse(until)))
    throw new UsageError(`"${until}" is no day. Write it as in --until 2027-01-31.`)
  const today = new Date().toISOString().slice(0, 10)
  if (until < today)
    throw new UsageError(`${until} is over, so nothing would be accepted. Today is ${today}.`)
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
  const said = reasonOf(reason)
  notOver(until)
  const module = config === undefined ? moduleIn(path) : null
  if (module !== null) {
    throw new UsageError(`The configuration is ${module}, which is code. Write the waiver into it by hand.`)
  }
  const file = config ?? join(path, configurationName)
  const before = textOf(file)
  if (isThere(file, before, code, where)) {
    out.write(
      `${code} is accepted${where === undefined ? '' : ` in ${where}`} already. Nothing was written to ${file}.\n`,
    )
    return exit.clear
  }
  const after = withWaiver(file, before, { code, where, reason: said, until })
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

/** Whether the configuration accepts the same in the same places, on a day that is not over. */
function isThere(file: string, text: string, code: string, where: string | undefined): boolean {
  const today = new Date().toISOString().slice(0, 10)
  const { waivers = [] } = parseConfiguration(file, text)
  return waivers.some((each) => each.code === code && each.where === where && (each.until ?? today) >= today)
}
