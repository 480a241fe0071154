import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import { mkdirSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { deserialize, serialize } from 'node:v8'
import type { Search } from '../../core/model/search.ts'
import { readRegular } from '../regular-file.ts'

/** A larger file is no cache of ours; bytes. */
const largestCache = 1_000_000_000

/** Older files that are not whole are nobody's; milliseconds. */
const leftAfter = 600_000

/** Files kept, two of each folder; those not used for longest are forgotten. */
const mostKept = 48

/** A file of the cache, and what it is sealed with. */
export interface KeptFile {
  readonly file: string
  readonly salt: Buffer
}

/** The file that keeps something of one folder. What was searched for is part of the name, by a hash that only this machine can make. */
export function keptFile(
  directory: string,
  kind: 'facts' | 'answers',
  folder: string,
  search: Search,
): KeptFile {
  const place = createHash('sha256').update(folder).digest('hex').slice(0, 16)
  const salt = saltOf(directory)
  const sought = createHmac('sha256', salt).update(JSON.stringify(search)).digest('hex').slice(0, 16)
  return { file: join(directory, `${kind}-${place}-${sought}.bin`), salt }
}

/** What was written there; null where it was never written, deleted, cut off, or changed by somebody else. */
export function load<Content>(file: string, salt: Buffer): Content | null {
  try {
    const content = unsealed(salt, readRegular(file, file, largestCache))
    return content && (deserialize(content) as Content)
  } catch {
    return null
  }
}

/** Writes it whole or not at all; a disk that is full is no failure. */
export function save(file: string, salt: Buffer, content: unknown): void {
  try {
    const bytes = sealed(salt, serialize(content))
    const fresh = `${file}.${process.pid}`
    try {
      writeFileSync(fresh, bytes, { mode: 0o600 })
      renameSync(fresh, file)
    } catch (error) {
      rmSync(fresh, { force: true })
      throw error
    }
    forgetOldest(join(file, '..'))
  } catch {
    // The next run reads everything again.
  }
}

function forgetOldest(directory: string): void {
  const names = readdirSync(directory).filter((name) => /^(?:facts|answers)-.*\.bin$/.test(name))
  const aged = names.map((name) => ({ name, time: statSync(join(directory, name)).mtimeMs }))
  aged.sort((a, b) => b.time - a.time)
  for (const { name } of aged.slice(mostKept)) rmSync(join(directory, name), { force: true })
  // What a run that was ended in the middle left behind.
  for (const name of readdirSync(directory).filter((each) => /^(?:facts|answers)-.*\.bin\.\d+$/.test(each))) {
    const found = statSync(join(directory, name), { throwIfNoEntry: false })
    if (found && Date.now() - found.mtimeMs > leftAfter) rmSync(join(directory, name), { force: true })
  }
}

function saltOf(directory: string): Buffer {
  const file = join(directory, 'salt')
  try {
    return readRegular(file, file, 1_000)
  } catch {
    const salt = randomBytes(32)
    try {
      mkdirSync(directory, { recursive: true })
      writeFileSync(file, salt, { mode: 0o600, flag: 'wx' })
    } catch {
      // Without a place to keep it, the next run makes another, and finds nothing.
    }
    return salt
  }
}

const sealLength = 32

/** What only this user's runs can have written: a digest with their key stands before it. */
function sealed(salt: Buffer, bytes: Uint8Array): Buffer {
  return Buffer.concat([createHmac('sha256', salt).update(bytes).digest(), bytes])
}

/** What was sealed; null where anything of it is another than it was. */
function unsealed(salt: Buffer, bytes: Buffer): Buffer | null {
  const content = bytes.subarray(sealLength)
  const digest = createHmac('sha256', salt).update(content).digest()
  const isWhole = bytes.length > sealLength && timingSafeEqual(digest, bytes.subarray(0, sealLength))
  return isWhole ? content : null
}
