import type { TextStream } from './streams.ts'

/** Colours, the line that progress clears, and links to files: the escapes that our own output has. */
const own = /^\u001b(?:\[[\d;]*[mK]|\]8;;(?:file:\/\/[^\u0007\u001b]*)?(?:\u0007|\u001b\\))$/
const controls =
  /\u001b(?:\[[0-?]*[ -/]*[@-~]|\][^\u0007\u001b]{0,4096}(?:\u0007|\u001b\\)?|.)?|[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/g

/**
 * A terminal that gets no control characters but those of our own: no text of a build moves the cursor, sets a title, makes a link or turns the
 * direction of what follows, whichever way it came here. What is no terminal gets every byte.
 */
export function guarded(stream: TextStream): TextStream {
  if (!stream.isTTY) return stream
  return {
    isTTY: true,
    get columns() {
      return stream.columns as number
    },
    write: (text) => stream.write(withoutControls(text)),
  }
}

/** Sequences are taken away, single characters replaced by a sign that shows them. */
export function withoutControls(text: string): string {
  return text.replace(controls, (found) =>
    own.test(found) ? found : found.startsWith('\u001b') ? '' : '\ufffd',
  )
}
