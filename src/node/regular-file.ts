import { closeSync, constants, fstatSync, openSync, readSync, realpathSync, type Stats } from 'node:fs'
import { FolderError } from '../core/model/errors.ts'

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
  return opened(path, shown, most, (descriptor, size) => Buffer.from(filled(descriptor, size, most, shown)))
}

/** The same, decoded as UTF-8. */
export function readRegularText(path: string, shown: string, most: number): string {
  return opened(path, shown, most, (descriptor, size) => {
    const bytes = filled(descriptor, size, most, shown)
    return bytes.toString('utf8')
  })
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

function opened<T>(
  path: string,
  shown: string,
  most: number,
  use: (descriptor: number, size: number) => T,
): T {
  const descriptor = openSync(path, safely)
  try {
    const found = fstatSync(descriptor)
    if (!found.isFile()) throw new FolderError('unreadable', `${shown} is ${kindOf(found)}, and is not read.`)
    if (found.size > most) throw tooLarge(shown, most)
    return use(descriptor, found.size)
  } finally {
    closeSync(descriptor)
  }
}

/** What a file holds. It may have grown since it was measured, or know no size, as files that the system makes up. */
function filled(descriptor: number, size: number, most: number, shown: string): Buffer {
  let bytes = size < room.length ? room : Buffer.allocUnsafeSlow(size + 1)
  let at = 0
  for (;;) {
    const count = readSync(descriptor, bytes, at, bytes.length - at, null)
    at += count
    if (count === 0) return bytes.subarray(0, at)
    if (at > most) throw tooLarge(shown, most)
    if (at === bytes.length) bytes = Buffer.concat([bytes], Math.min(at * 2, most + 1))
  }
}

function tooLarge(shown: string, most: number): FolderError {
  return new FolderError('unreadable', `${shown} is larger than ${most / 1_000_000} MB, and is not read.`)
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
