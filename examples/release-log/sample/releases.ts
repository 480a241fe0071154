/** What is in a made-up release: enough to build it. */
export interface SampleRelease {
  readonly project: 'crossings' | 'harbour-board'
  readonly date: string
  /** Words of text in the shared chunk and in each page's own. */
  readonly shared: number
  readonly pages: Readonly<Record<string, number>>
  readonly fault: Fault | null
}

/** The faults that Skerry Line shipped, or nearly. */
export type Fault = 'localhost' | 'wrong base' | 'maps' | 'broken link' | 'backup'

const day = 86_400_000
const first = Date.parse('2026-01-12')

/** The twenty-six releases of the public site and the fourteen of the board in the harbours, in order. */
export function sampleReleases(): readonly SampleRelease[] {
  return [...site(), ...board()].sort((a, b) => a.date.localeCompare(b.date))
}

const siteFaults: Readonly<Record<number, Fault>> = {
  3: 'broken link',
  4: 'broken link',
  8: 'localhost',
  13: 'maps',
  14: 'maps',
  15: 'maps',
  18: 'wrong base',
  22: 'backup',
}

function site(): SampleRelease[] {
  return Array.from({ length: 26 }, (_, index) => ({
    project: 'crossings' as const,
    date: dateOf(index * 12),
    // The charts came with the eleventh release, and were loaded later from the twentieth on.
    shared: 5_200 + index * 130 + (index >= 10 && index < 19 ? 6_400 : 0),
    pages: {
      '': 900 + index * 25,
      sailings: 1_500 + (index > 5 ? 700 : 0),
      harbours: 1_100 + index * 14,
      ...(index >= 7 && { tickets: 2_100 + index * 30 }),
    },
    fault: siteFaults[index] ?? null,
  }))
}

const boardFaults: Readonly<Record<number, Fault>> = { 2: 'localhost', 3: 'localhost', 9: 'wrong base' }

function board(): SampleRelease[] {
  return Array.from({ length: 14 }, (_, index) => ({
    project: 'harbour-board' as const,
    date: dateOf(5 + index * 22),
    shared: 2_400 - index * 60,
    pages: { '': 700 + index * 10, ...(index >= 4 && { tides: 1_300 }) },
    fault: boardFaults[index] ?? null,
  }))
}

function dateOf(days: number): string {
  return new Date(first + days * day).toISOString().slice(0, 10)
}
