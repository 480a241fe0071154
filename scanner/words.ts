import { beginNotes, endOfNotes, noteTwo } from './notes'

/** Three characters in a row, of each the lower five bits, in which letters of both cases are the same. */
const grams: usize = 1 << 15

/**
 * Notes where words stand, each by its number and its offset, in one pass: at each character one look into a table tells whether any of
 * them may begin two characters before. Letters of both cases are the same.
 * @param table for each three characters the number of a bucket, 0 for none; behind them where in the table each bucket is. A bucket is a list of
 *   words: how many units one has, its number, its units; each begins at a multiple of four bytes, and a length of 0 ends the list
 * @returns where the notes end
 */
export function find(units: usize, length: i32, table: usize, notes: usize): usize {
  beginNotes(notes)
  // One more than there are: behind the last of two characters stands a zero.
  const end = units + ((<usize>length) << 1) + 2
  let gram: usize = ((load<u16>(units) & 31) << 5) | (load<u16>(units, 2) & 31)
  for (let p = units + 4; p < end; p += 2) {
    gram = ((gram << 5) | (load<u16>(p) & 31)) & (grams - 1)
    const bucket: usize = load<u8>(table + gram)
    if (bucket !== 0) verify(units, p - 4, table + load<u32>(table + grams + (bucket << 2)))
  }
  return endOfNotes()
}

function verify(units: usize, p: usize, bucket: usize): void {
  let entry = bucket
  for (let size = load<i32>(entry); size !== 0; size = load<i32>(entry)) {
    if (isWord(p, entry + 8, size)) noteTwo(load<i32>(entry, 4), <i32>((p - units) >> 1))
    entry += 8 + ((((<usize>size) << 1) + 3) & ~3)
  }
}

function isWord(p: usize, word: usize, size: i32): bool {
  for (let i: usize = 0, end = (<usize>size) << 1; i < end; i += 2) {
    const unit: i32 = load<u16>(p + i)
    const letter: i32 = load<u16>(word + i)
    if (unit !== letter && ((unit ^ letter) !== 32 || !isLetter(letter))) return false
  }
  return true
}

function isLetter(code: i32): bool {
  const small = code | 32
  return small >= 97 && small <= 122
}
