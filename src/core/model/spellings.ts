/**
 * The ways in which a text is written in what a build holds or a report shows: as it is, escaped for a script, for JSON, for a
 * page or for an address. Searching and masking use the same list, so that nothing is shown in a form that is not looked for.
 */
export function spellingsOf(value: string): readonly string[] {
  const quoted = JSON.stringify(value).slice(1, -1)
  const script = value.replace(/[\\'`]|\$(?=\{)/g, '\\$&').replaceAll('\n', '\\n')
  const address = encoded(value, encodeURIComponent)
  const all = [value, quoted, script]
  return distinct([
    ...all,
    ...all.flatMap((each) => (each.includes('/') ? slashed(each) : [])),
    ...unicodeEscaped(quoted),
    ...htmlEscaped(value),
    address,
    address.replace(/%[\dA-F]{2}/g, (code) => code.toLowerCase()),
    address.replaceAll('%20', '+'),
    encoded(value, encodeURI),
  ])
}

/** Shorter pieces of base64 stand in every bundle; characters. */
const shortestEncoded = 10

/**
 * The characters of base64 (RFC 4648, sections 4 and 5) that are the same whatever stands before and after a text: one form
 * for each way in which it can begin within a group of three bytes.
 */
export function base64SpellingsOf(value: string): readonly string[] {
  const bytes = new TextEncoder().encode(value)
  const forms = [0, 1, 2].map((shift) => {
    const text = base64([...new Uint8Array(shift), ...bytes])
    return text.slice(Math.ceil((shift * 8) / 6), Math.floor(((shift + bytes.length) * 8) / 6))
  })
  return distinct(forms.flatMap((form) => [form, form.replaceAll('+', '-').replaceAll('/', '_')])).filter(
    (form) => form.length >= shortestEncoded,
  )
}

function base64(bytes: readonly number[]): string {
  let text = ''
  for (const byte of bytes) text += String.fromCharCode(byte)
  return btoa(text)
}

function slashed(text: string): string[] {
  return [text.replaceAll('/', '\\u002F'), text.replaceAll('/', '\\u002f'), text.replaceAll('/', '\\/')]
}

/** As data in a page is written, where these could end the script element. */
function unicodeEscaped(text: string): string[] {
  if (!/[<>&]/.test(text)) return []
  const codeOf = (character: string): string => character.charCodeAt(0).toString(16)
  return [
    text.replace(/[<>&]/g, (character) => `\\u00${codeOf(character)}`),
    text.replace(/[<>&]/g, (character) => `\\u00${codeOf(character).toUpperCase()}`),
  ]
}

function htmlEscaped(text: string): string[] {
  if (!/[<>&"']/.test(text)) return []
  const inText = text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')
  const inAttribute = inText.replaceAll('"', '&quot;')
  return [
    text.replaceAll('&', '&amp;'),
    text.replaceAll('&', '&amp;').replaceAll('"', '&quot;'),
    inText,
    inAttribute,
    ...['&#39;', '&#x27;', '&apos;'].map((quote) => inAttribute.replaceAll("'", quote)),
  ]
}

/** A lone surrogate can't be percent-encoded; then there is no such form. */
function encoded(value: string, encode: (text: string) => string): string {
  try {
    return encode(value)
  } catch {
    return value
  }
}

function distinct(forms: readonly string[]): string[] {
  return [...new Set(forms)]
}
