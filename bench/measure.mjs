// Whole processes, taken in turn, so that a change of the machine's speed falls on all of them alike.
import { spawnSync } from 'node:child_process'
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const bin = fileURLToPath(new URL('../dist/cli/bin.cjs', import.meta.url))
const peakHook = fileURLToPath(new URL('peak.cjs', import.meta.url))

/**
 * Runs each command once uncounted and then `rounds` times, in turn.
 * @param commands name to a command and its arguments, or a function to call
 * @returns name to `{ milliseconds, kilobytes }`, medians
 */
export function measure(commands, rounds = 5) {
  const found = new Map(Object.keys(commands).map((name) => [name, { times: [], peaks: [] }]))
  for (let round = 0; round <= rounds; round++) {
    for (const [name, command] of Object.entries(commands)) {
      const { milliseconds, kilobytes } = once(command)
      if (round === 0) continue
      found.get(name).times.push(milliseconds)
      found.get(name).peaks.push(kilobytes)
    }
  }
  return Object.fromEntries(
    [...found].map(([name, { times, peaks }]) => [
      name,
      {
        milliseconds: median(times),
        least: Math.min(...times),
        most: Math.max(...times),
        kilobytes: median(peaks),
      },
    ]),
  )
}

function once([command, ...args]) {
  const peak = join(tmpdir(), `wardoscope-peak-${process.pid}`)
  const isNode = command === 'node'
  const all = isNode ? ['--require', peakHook, ...args] : args
  const started = performance.now()
  const { status, error } = spawnSync(command, all, {
    stdio: 'ignore',
    env: { ...process.env, PEAK_FILE: peak },
  })
  const milliseconds = performance.now() - started
  if (error || status === null || status > 1)
    throw error ?? new Error(`${command} ${args.join(' ')}: ${status}`)
  return { milliseconds, kilobytes: isNode ? Number(readFileSync(peak, 'utf8')) : Number.NaN }
}

export function median(values) {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]
}

/** How many files a folder holds, and their bytes. */
export function sizeOf(folder) {
  let files = 0
  let bytes = 0
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue
    files++
    bytes += statSync(join(entry.parentPath, entry.name)).size
  }
  return { files, bytes }
}
