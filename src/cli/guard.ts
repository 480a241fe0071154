import type { TextStream } from './streams.ts'

/** Colours, the line that progress clears, and links: the escapes that our own output has. */
const own = /^\u001b(?:\[[\d;]*[mK]|\]8;;(?<target>[^\u0007\u001b]*)(?:\u0007|\u001b\\))$/
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

/**
 * Sequences are taken away, single characters replaced by a sign that shows them. Links lead to files, or to what the person's own template
 * for links begins with.
 */
export function withoutControls(text: string, template = process.env.WARDOSCOPE_LINK ?? ''): string {
  const begins = ['file://', ...(template.includes('{') ? [template.slice(0, template.indexOf('{'))] : [])]
  const isOwn = (found: string): boolean => {
    const match = own.exec(found)
    const target = match?.groups?.target ?? ''
    return match !== null && (target === '' || begins.some((each) => each !== '' && target.startsWith(each)))
  }
  return text.replace(controls, (found) =>
    isOwn(found) ? found : found.startsWith('\u001b') ? '' : '\ufffd',
  )
}
