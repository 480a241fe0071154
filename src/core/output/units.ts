/** UTF-16 code units, with zeros behind the end, so that looking a little further needs no care. */
export type Units = Uint16Array

let shared = new Uint16Array(1 << 20)
let of = ''

/**
 * The code units of a text. A loop over an array of numbers is half again as fast as one over a string, whose form must
 * be looked at for every character. The array is used again for the next text: what goes over it ends before that.
 */
export function unitsOf(text: string): Units {
  if (text === of) return shared
  if (shared.length < text.length + 4) shared = new Uint16Array(text.length * 2 + 4)
  for (let i = 0; i < text.length; i++) shared[i] = text.charCodeAt(i)
  shared.fill(0, text.length, text.length + 4)
  of = text
  return shared
}
