/**
 * The marks that templates put where a value goes: `%NAME%`, `{{name}}`, `<%= name %>`, `${name}`, `[[name]]`,
 * `$NAME_OF_IT`, `__NAME__`, `<?= name ?>`, `%%NAME%%`, `@@NAME@@`, `::name::`, percent-encoded or not.
 */
const marks =
  /%%\w+%%|@@\w+@@|(?<![^/])::\w+::|%[A-Z]{3,}%(?![\dA-F]{2})|%(?:[A-Z][A-Za-z\d]*_\w*|(?![\dA-F]{2})[A-Z]\w+|[a-z][a-z\d]*(?:\.[a-z]+)+)%|\{\{.{0,200}?\}\}|<%.{0,200}?%>|\$\{.{0,200}?\}|\[\[(?!\.{3}).{0,200}?\]\]|\$[A-Z]+(?:_[A-Z]+)+|__[A-Z][A-Z\d_]*__|<\?.{0,200}?\?>/

/** What may begin one; most URLs hold none of these. */
const mayMark = /[%{<$[]|__|@@|::/

/** A longer URL holds data; characters. */
const longest = 2_000

/** Whether a closer look is worth while. */
export function mayHoldMarker(raw: string): boolean {
  return mayMark.test(raw)
}

/** The marker that stands in a URL where a value should, or null. */
export function markerIn(raw: string): string | null {
  if (!mayMark.test(raw)) return null
  const written = raw.slice(0, longest)
  const plain = written.replace(/%(?:7B|7D|3C|3E|25|24|5B|5D|20|3D|3F)/gi, (code) => decodeURIComponent(code))
  return marks.exec(written)?.[0] ?? marks.exec(plain)?.[0] ?? null
}

/** A marker in a page's title, where nobody explains templates: `%VITE_TITLE%`, `{{ title }}`, `<%= title %>`. */
const inTitle =
  /<[Tt][Ii][Tt][Ll][Ee](?:\s[^>]{0,200})?>[^<]{0,400}?(%[A-Z][A-Z\d]*(?:_[A-Z\d]+)+%|\{\{\s{0,3}[\w.]{1,60}\s{0,3}\}\}|<%=?\s{0,3}[\w.]{1,60}\s{0,3}%>)/y
const title = /<title[\s>]/gi

/** The marker that a page shows as its title, with where it stands; null when it shows none. */
export function markerInTitle(html: string): { readonly offset: number; readonly length: number } | null {
  // One title is found at once; the whole pattern at every bracket takes ten times as long.
  for (const { index } of html.matchAll(title)) {
    inTitle.lastIndex = index
    const match = inTitle.exec(html)
    const marker = match?.[1]
    if (match && marker !== undefined)
      return { offset: index + match[0].length - marker.length, length: marker.length }
  }
  return null
}
