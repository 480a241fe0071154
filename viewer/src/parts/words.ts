import type { Finding, Report, Severity } from '../../../src/core/model/report.ts'

type Origin = NonNullable<Report['survey']['project']>['from']

/** `vite.config.ts:5`, or what set the value. */
export function originInWords(from: Origin): string {
  return 'file' in from ? `${from.file}:${from.line}` : from.by
}

export const severities: readonly Severity[] = ['blocker', 'caution', 'note']

/** `2 blockers`, `1 note`. */
export function tally(count: number, severity: Severity): string {
  return `${count.toLocaleString('en')} ${severity}${count === 1 ? '' : 's'}`
}

/** Characters that would turn a line around or hide in it, shown as what they are. Whatever a build holds is text. */
export function plain(text: string): string {
  return text.replace(
    /[\u0000-\u001f\u007f-\u009f\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufeff]/g,
    (character) => `\u27e8${character.charCodeAt(0).toString(16).padStart(4, '0')}\u27e9`,
  )
}

/** Whether the words of a search all stand in a text, letter case apart. */
export function matches(text: string, search: string): boolean {
  const held = text.toLowerCase()
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => held.includes(word))
}

/** All of a finding that a person may search for. */
export function textOf({ code, title, impact, cause, source, places }: Finding): string {
  const files = places.slice(0, 200).map(({ file, request }) => `${file} ${request ?? ''}`)
  return [code, title, impact, cause, source?.file ?? '', ...files].join(' ')
}
