// What a pass found, as numbers in a row behind everything else that is kept; the memory grows as they do.

/** Bytes that a note takes at most. */
const widest: usize = 12

let at: usize = 0
let limit: usize = 0

/** Begins at an address. */
export function beginNotes(from: usize): void {
  at = from
  limit = (<usize>memory.size()) << 16
}

/** Where the notes end. */
export function endOfNotes(): usize {
  return at
}

export function noteTwo(first: i32, second: i32): void {
  if (at + widest > limit) grow()
  store<i32>(at, first)
  store<i32>(at, second, 4)
  at += 8
}

export function noteThree(first: i32, second: i32, third: i32): void {
  if (at + widest > limit) grow()
  store<i32>(at, first)
  store<i32>(at, second, 4)
  store<i32>(at, third, 8)
  at += 12
}

function grow(): void {
  memory.grow(64)
  limit = (<usize>memory.size()) << 16
}
