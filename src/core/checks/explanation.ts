/** What a finding code means, for somebody who sees it for the first time. Paragraphs are divided by empty lines. */
export interface Explanation {
  readonly meaning: string
  /** A short example of build and request. */
  readonly example?: string
  readonly fix?: string
  /** How it is fixed with a framework, by the framework's name. */
  readonly fixWith?: Readonly<Record<string, string>>
}

/** Explanations by finding code. */
export type Explanations = Readonly<Record<string, Explanation>>

/**
 * Reads the Markdown of a finding code: what it means, then the sections "Example" and "How to fix it", and in that one a
 * section for each framework, "With vite". A heading and a line of the code itself may stand before.
 */
export function parseExplanation(markdown: string): Explanation {
  const [before = '', ...sections] = markdown.split(/^##+ /m)
  const texts = new Map(sections.map(headed))
  const fixWith = [...texts].flatMap(([heading, text]) =>
    heading.startsWith('With ') ? [[heading.slice('With '.length), text]] : [],
  )
  return {
    meaning: before.replace(/^# .*\n\s*\*\*.*\n/, '').trim(),
    example: texts.get('Example') ?? '',
    fix: texts.get('How to fix it') ?? '',
    fixWith: Object.fromEntries(fixWith),
  }
}

function headed(section: string): [heading: string, text: string] {
  const end = section.indexOf('\n')
  return end < 0 ? [section.trim(), ''] : [section.slice(0, end).trim(), section.slice(end).trim()]
}
