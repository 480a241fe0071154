/** Tells how long each stage took. */
export interface Stopwatch {
  lap(name: string): void
  laps(): Record<string, number>
}

/** Starts a stopwatch; its laps are in milliseconds. */
export function stopwatch(): Stopwatch {
  const laps: Record<string, number> = {}
  let last = performance.now()
  return {
    lap(name) {
      const now = performance.now()
      // A stage may be gone through several times.
      laps[name] = Math.round(((laps[name] ?? 0) + now - last) * 10) / 10
      last = now
    },
    laps: () => laps,
  }
}
