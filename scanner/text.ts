/** Four bytes that are all ASCII have none of these bits. */
const beyondAscii: u32 = 0x80808080

/**
 * Writes UTF-8 as UTF-16 code units, with zeros behind the end, so that looking a little further needs no care.
 * @returns how many units, or -1 where the bytes are no UTF-8 (Encoding standard, 8.1.1 "UTF-8 decoder")
 */
export function widen(from: usize, size: i32, to: usize): i32 {
  const end = from + size
  let p = from
  let q = to
  while (p < end) {
    if (p + 8 <= end && ((load<u32>(p) | load<u32>(p, 4)) & beyondAscii) === 0) {
      store<u16>(q, load<u8>(p))
      store<u16>(q, load<u8>(p, 1), 2)
      store<u16>(q, load<u8>(p, 2), 4)
      store<u16>(q, load<u8>(p, 3), 6)
      store<u16>(q, load<u8>(p, 4), 8)
      store<u16>(q, load<u8>(p, 5), 10)
      store<u16>(q, load<u8>(p, 6), 12)
      store<u16>(q, load<u8>(p, 7), 14)
      p += 8
      q += 16
      continue
    }
    const lead: i32 = load<u8>(p)
    if (lead < 0x80) {
      store<u16>(q, lead)
      p++
      q += 2
      continue
    }
    const more = lead < 0xc2 || lead > 0xf4 ? 0 : lead < 0xe0 ? 1 : lead < 0xf0 ? 2 : 3
    if (more === 0 || p + more >= end) return -1
    let code = lead & (63 >> more)
    for (let i = 1; i <= more; i++) {
      const next: i32 = load<u8>(p + i)
      if ((next & 0xc0) !== 0x80) return -1
      code = (code << 6) | (next & 63)
    }
    if (more === 2 && (code < 0x800 || (code >= 0xd800 && code < 0xe000))) return -1
    if (more === 3) {
      if (code < 0x10000 || code > 0x10ffff) return -1
      store<u16>(q, 0xd800 + ((code - 0x10000) >> 10))
      code = 0xdc00 + ((code - 0x10000) & 1023)
      q += 2
    }
    store<u16>(q, code)
    p += more + 1
    q += 2
  }
  store<u64>(q, 0)
  return <i32>((q - to) >> 1)
}

/** Whether a text stands at an address. */
export function standsAt(p: usize, text: string): bool {
  const expected = changetype<usize>(text)
  for (let i: usize = 0, size = (<usize>text.length) << 1; i < size; i += 2) {
    if (load<u16>(p + i) !== load<u16>(expected + i)) return false
  }
  return true
}
