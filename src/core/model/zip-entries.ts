import { ArchiveProblem, leadsOut } from './archive.ts'

/** One file of a zip archive, as its directory lists it. */
export interface ZipEntry {
  readonly path: string
  /** Of its bytes, packed as they stand in the archive. */
  readonly packed: Uint8Array
  readonly isDeflated: boolean
  /** Bytes. */
  readonly size: number
  readonly checksum: number
}

// Signatures and sizes of APPNOTE.TXT 6.3.10, 4.3.7 "Local file header", 4.3.12 and 4.3.16.
const endSignature = 0x06054b50
const endSize = 22
const entrySignature = 0x02014b50
const entrySize = 46
const localSignature = 0x04034b50
const localSize = 30
const longestComment = 65_535
/** Stands where the number is in a record of the large form. */
const elsewhere32 = 0xffffffff
const elsewhere16 = 0xffff

const encrypted = 1
const utf8Names = 1 << 11
const deflated = 8
const stored = 0
const linkMode = 0o120000
const modeBits = 0o170000

/**
 * The files that the directory of an archive lists, with all that it says of them held against where they stand.
 * @param most files; more are refused
 * @throws {ArchiveProblem}
 */
export function zipEntries(archive: Uint8Array, most: number): ZipEntry[] {
  const view = new DataView(archive.buffer, archive.byteOffset, archive.byteLength)
  const end = endOf(view)
  const count = view.getUint16(end + 10, true)
  const start = view.getUint32(end + 16, true)
  if (count === elsewhere16 || start === elsewhere32)
    throw new ArchiveProblem('is a zip archive of the large form (zip64)')
  if (view.getUint16(end + 4, true) !== 0) throw new ArchiveProblem('is one part of an archive of several')
  if (count > most) throw new ArchiveProblem('unpacks to more than a site has')
  const found: ZipEntry[] = []
  const spans: { from: number; to: number; path: string }[] = []
  let at = start
  for (let index = 0; index < count; index++) {
    const listed = entryAt(archive, view, at, end)
    at = listed.next
    if (listed.path.endsWith('/')) continue
    const span = dataOf(archive, view, listed, start)
    spans.push({ ...span, path: listed.path })
    found.push({ ...listed, packed: archive.subarray(span.from, span.to) })
  }
  if (at !== end) throw new ArchiveProblem('has a directory that does not end where it says')
  checkSpans(spans)
  return found
}

function endOf(view: DataView): number {
  const least = Math.max(0, view.byteLength - endSize - longestComment)
  for (let at = view.byteLength - endSize; at >= least; at--)
    if (
      view.getUint32(at, true) === endSignature &&
      at + endSize + view.getUint16(at + 20, true) === view.byteLength
    )
      return at
  throw new ArchiveProblem('is no zip archive that can be read, or was cut off')
}

interface Listed extends Omit<ZipEntry, 'packed'> {
  readonly packedSize: number
  readonly header: number
  readonly rawName: Uint8Array
  readonly next: number
}

function entryAt(archive: Uint8Array, view: DataView, at: number, end: number): Listed {
  if (at + entrySize > end || view.getUint32(at, true) !== entrySignature)
    throw new ArchiveProblem('has a directory that does not hold what it says')
  const nameLength = view.getUint16(at + 28, true)
  const next = at + entrySize + nameLength + view.getUint16(at + 30, true) + view.getUint16(at + 32, true)
  if (next > end) throw new ArchiveProblem('has a directory that does not hold what it says')
  const rawName = archive.subarray(at + entrySize, at + entrySize + nameLength)
  const flags = view.getUint16(at + 8, true)
  const path = nameOf(rawName, (flags & utf8Names) !== 0)
  const method = view.getUint16(at + 10, true)
  const packedSize = view.getUint32(at + 20, true)
  const size = view.getUint32(at + 24, true)
  const header = view.getUint32(at + 42, true)
  const mode = view.getUint32(at + 38, true) >>> 16
  if ((flags & encrypted) !== 0) throw new ArchiveProblem(`holds ${path} encrypted`)
  if ((mode & modeBits) === linkMode) throw new ArchiveProblem(`holds a link, ${path}`)
  if ([packedSize, size, header].includes(elsewhere32))
    throw new ArchiveProblem('is a zip archive of the large form (zip64)')
  if (method !== deflated && method !== stored)
    throw new ArchiveProblem(`packs ${path} in a way that is not read`)
  if (method === stored && packedSize !== size) throw new ArchiveProblem(`says two sizes of ${path}`)
  if (leadsOut(path)) throw new ArchiveProblem(`holds a name that leads out of it, ${path}`)
  const checksum = view.getUint32(at + 16, true)
  return { path, isDeflated: method === deflated, packedSize, size, checksum, header, rawName, next }
}

/** Names are in UTF-8 by their flag; without it they are most often all the same, and else in the oldest code page. */
function nameOf(raw: Uint8Array, isUtf8: boolean): string {
  try {
    return new TextDecoder('utf-8', { fatal: !isUtf8 }).decode(raw)
  } catch {
    return String.fromCharCode(...raw)
  }
}

/** Where the bytes of a file stand, by its own header, which must be of the same file. */
function dataOf(
  archive: Uint8Array,
  view: DataView,
  { header, rawName, packedSize, path }: Listed,
  limit: number,
): { from: number; to: number } {
  const isThere = header + localSize <= limit && view.getUint32(header, true) === localSignature
  const nameLength = isThere ? view.getUint16(header + 26, true) : -1
  const own = archive.subarray(header + localSize, header + localSize + nameLength)
  if (!isThere || nameLength !== rawName.length || own.some((byte, index) => byte !== rawName[index]))
    throw new ArchiveProblem(`does not hold ${path} where its directory says`)
  const from = header + localSize + nameLength + view.getUint16(header + 28, true)
  if (from + packedSize > limit) throw new ArchiveProblem(`does not hold all of ${path}`)
  return { from, to: from + packedSize }
}

/** One piece of an archive that is several files unpacks to more than anybody sees, and one name is one file. */
function checkSpans(spans: { from: number; to: number; path: string }[]): void {
  const names = new Set<string>()
  let last = 0
  for (const { from, to, path } of [...spans].sort((a, b) => a.from - b.from || a.to - b.to)) {
    if (names.has(path)) throw new ArchiveProblem(`holds ${path} twice`)
    if (from < last) throw new ArchiveProblem(`holds ${path} inside another file`)
    names.add(path)
    last = to
  }
}

const table = Uint32Array.from({ length: 256 }, (_, byte) => {
  let sum = byte
  for (let bit = 0; bit < 8; bit++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1
  return sum
})

/** The checksum of zip archives (CRC-32, ISO 3309). */
export function checksumOf(bytes: Uint8Array): number {
  let sum = 0xffffffff
  for (const byte of bytes) sum = (sum >>> 8) ^ (table[(sum ^ byte) & 255] as number)
  return (sum ^ 0xffffffff) >>> 0
}
