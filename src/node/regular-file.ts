import { closeSync, constants, fstatSync, openSync, readSync, realpathSync, type Stats } from 'node:fs'
import { FolderError, tooLarge } from '../core/model/errors.ts'

/**
 * Opens without waiting for a writer of a pipe and without following a link at the end. Where a system knows neither, both
 * are 0, and what was opened is still looked at before it is read.
 */
const safely = constants.O_RDONLY | (constants.O_NONBLOCK ?? 0) | (constants.O_NOFOLLOW ?? 0)

/** Room for most files, so that reading a thousand small ones allocates nothing; bytes. */
const room = Buffer.allocUnsafeSlow(256 * 1024)

/**
 * The bytes of a regular file: the one way in which files are read. A link at the end of the path is refused by the system
 * with `ELOOP`.
 * @param shown how messages name the file
 * @param most the largest file that is read; bytes
 * @throws {FolderError} when it is no regular file, or a larger one
 * @throws {NodeJS.ErrnoException} what the system refused
 */
export function readRegular(path: string, shown: string, most: number): Buffer {
  return opened(path, (descriptor) => Buffer.from(filled(descriptor, shown, most)))
}

/** The same, decoded as UTF-8. */
export function readRegularText(path: string, shown: string, most: number): string {
  return opened(path, (descriptor) => filled(descriptor, shown, most).toString('utf8'))
}

function opened<T>(path: string, use: (descriptor: number) => T): T {
  const descriptor = openSync(path, safely)
  try {
    return use(descriptor)
  } finally {
    closeSync(descriptor)
  }
}

/** What an open file holds; part of {@link room} where it fits. */
function filled(descriptor: number, shown: string, most: number): Buffer {
  const count = beginning(descriptor, shown)
  // A file that gives less than there is room for is whole: thousands of small ones are not measured first.
  if (count > 0 && count < room.length) {
    if (count > most) throw tooLarge(shown, most)
    return room.subarray(0, count)
  }
  const { size } = regular(descriptor, shown)
  if (size > most) throw tooLarge(shown, most)
  return count === 0 ? room.subarray(0, 0) : whole(descriptor, size, shown, most)
}

/** Reads at a position, which the system refuses for whatever is no file of bytes: nothing is taken from a pipe. */
function beginning(descriptor: number, shown: string): number {
  try {
    return readSync(descriptor, room, 0, room.length, 0)
  } catch (error) {
    regular(descriptor, shown)
    throw error
  }
}

function regular(descriptor: number, shown: string): Stats {
  const found = fstatSync(descriptor)
  if (found.isFile()) return found
  throw new FolderError('unreadable', `${shown} is ${kindOf(found)}, and is not read.`)
}

/** A large file. It may have grown since it was measured. */
function whole(descriptor: number, size: number, shown: string, most: number): Buffer {
  const bytes = Buffer.allocUnsafeSlow(Math.min(size, most) + 1)
  let at = 0
  for (let count = 1; count > 0 && at < bytes.length; at += count)
    count = readSync(descriptor, bytes, at, bytes.length - at, at)
  if (at > most) throw tooLarge(shown, most)
  return bytes.subarray(0, Math.min(at, size))
}

/**
 * A file that a person named: a link to it is followed, since the person chose it.
 * @throws {FolderError} when it is not there, is no regular file, is too large, or can't be read
 */
export function readNamed(path: string, most: number): Buffer {
  try {
    return readRegular(realpathSync(path), path, most)
  } catch (error) {
    throw asFolderError(error, path, 'file')
  }
}

/** What stands where a file was expected. */
export function kindOf(found: Pick<Stats, 'isDirectory' | 'isFIFO' | 'isSocket'>): string {
  if (found.isDirectory()) return 'a directory'
  if (found.isFIFO()) return 'a named pipe'
  return found.isSocket() ? 'a socket' : 'a device'
}

/** The code of what the system refused, or ''. */
export function codeOf(error: unknown): string {
  return error instanceof Error && 'code' in error ? String(error.code) : ''
}

/** Whether there is nothing at a path. */
export function isMissing(error: unknown): boolean {
  return codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR'
}

/** What the system refused, in one sentence. Anything else is a defect, and stays what it is. */
export function asFolderError(error: unknown, path: string, what: string): unknown {
  if (error instanceof FolderError) return error
  if (isMissing(error)) return new FolderError('missing', `There is no ${what} at ${path}.`)
  const code = codeOf(error)
  if (code === '') return error
  // A socket can't even be opened.
  if (code === 'ENXIO') return new FolderError('unreadable', `${path} is a socket, and is not read.`)
  const why = code === 'EACCES' || code === 'EPERM' ? 'permission was refused' : code
  return new FolderError('unreadable', `The ${what} ${path} could not be read: ${why}.`)
}
