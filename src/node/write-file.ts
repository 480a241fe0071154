import { appendFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { FolderError } from '../core/model/errors.ts'
import { real } from './opening/above.ts'
import { codeOf } from './regular-file.ts'

/**
 * Writes a file that a person named: beside it first, then in its place, so that nobody reads half of it and a full disk
 * leaves what was there. What is no regular file, as a terminal or a pipe, is written to as it is.
 * @throws {FolderError} when it can't be written
 */
export function writeBeside(file: string, text: string | Uint8Array): void {
  try {
    const target = real(file)
    const found = statSync(target, { throwIfNoEntry: false })
    if (found && !found.isFile()) {
      writeFileSync(target, text)
      return
    }
    const fresh = `${target}.${process.pid}.part`
    try {
      writeFileSync(fresh, text, found ? { mode: found.mode } : {})
      renameSync(fresh, target)
    } catch (error) {
      rmSync(fresh, { force: true })
      throw error
    }
  } catch (error) {
    throw notWritten(file, error)
  }
}

/** Adds to the end of a file, which is made where it is not there. @throws {FolderError} when it can't be written */
export function appendTo(file: string, text: string): void {
  try {
    appendFileSync(real(file), text)
  } catch (error) {
    throw notWritten(file, error)
  }
}

function notWritten(file: string, error: unknown): unknown {
  const code = codeOf(error)
  if (code === '') return error
  const why = { ENOENT: 'its directory is not there', ENOSPC: 'the disk is full' }[code] ?? code
  return new FolderError('unreadable', `${file} could not be written: ${why}.`)
}
