import { decodeXML } from 'entities'
import type { Place } from '../../model/reading.ts'
import { positionsIn } from '../../model/text.ts'
import type { Folded } from '../../syntax/value.ts'

interface Open {
  readonly name: string
  readonly at: Place
  readonly inside: Map<string, Folded[]>
  text: string
}

/** Deeper than this no data is nested. */
const mostLevels = 500

/** Reads XML as data: elements are members, those of one name a list, and text a value. What is not closed ends with the file. */
export function foldXml(file: string, xml: string): Folded | null {
  const position = positionsIn(xml)
  const top: Open = { name: '', at: { file, line: 1, column: 1 }, inside: new Map(), text: '' }
  const open = [top]
  const close = (): void => {
    // What closes nothing is passed over.
    const done = open.length > 1 ? open.pop() : undefined
    const outer = open.at(-1)
    if (!done || !outer) return
    const known = outer.inside.get(done.name)
    if (known) known.push(folded(done))
    else outer.inside.set(done.name, [folded(done)])
  }
  for (let at = 0; at < xml.length; ) {
    const tag = xml.indexOf('<', at)
    const inside = open.at(-1) as Open
    inside.text += xml.slice(at, tag < 0 ? xml.length : tag)
    if (tag < 0) break
    if (xml.startsWith('<![CDATA[', tag)) {
      const end = behind(xml, ']]>', tag)
      inside.text += xml.slice(tag + 9, end - 3)
      at = end
    } else if (xml.startsWith('<!--', tag)) at = behind(xml, '-->', tag)
    else {
      at = behind(xml, '>', tag)
      const name = /^<([\w:.-]{1,100})/.exec(xml.slice(tag, tag + 102))?.[1]
      if (xml.startsWith('</', tag)) close()
      else if (name !== undefined) {
        open.push({ name, at: { file, ...position(tag) }, inside: new Map(), text: '' })
        if (xml.charAt(at - 2) === '/') close()
        if (open.length > mostLevels) return null
      }
    }
  }
  while (open.length > 1) close()
  return top.inside.size > 0 ? folded(top) : null
}

function folded({ at, inside, text }: Open): Folded {
  if (inside.size === 0) return { kind: 'value', value: decodeXML(text.trim()), at }
  const members = [...inside].map(([name, all]): [string, Folded] => {
    const [first] = all
    return [name, all.length === 1 && first ? first : { kind: 'list', items: all, at }]
  })
  return { kind: 'object', members: new Map(members), open: false, at }
}

function behind(text: string, mark: string, from: number): number {
  const at = text.indexOf(mark, from)
  return at < 0 ? text.length : at + mark.length
}
