import fc from 'fast-check'
import { parse } from 'parse5'
import { expect, test } from 'vitest'
import { scanHtml } from './scan.ts'

type Node = {
  nodeName: string
  attrs?: { name: string; prefix?: string; value: string }[]
  childNodes?: Node[]
  content?: Node
  value?: string
  sourceCodeLocation?: { startOffset: number } | null
}

const watched = ['src', 'href', 'style', 'xlink:href']

function ours(html: string): string[] {
  const found: string[] = []
  scanHtml(
    html,
    (name, attributes) => {
      for (const attribute of watched) {
        const value = attributes.get(attribute)
        if (!value) continue
        expect(value.offset + value.length).toBeLessThanOrEqual(html.length)
        found.push(`${name} ${attribute}=${value.value}`)
      }
    },
    (name, start, end) => {
      if (end > start) found.push(`${name}: ${html.slice(start, end)}`)
    },
  )
  return found.map(normal)
}

/** What a full parser of the standard sees, in document order. */
function standard(html: string): string[] {
  const found: string[] = []
  const written = new Set<number>()
  const visit = (node: Node): void => {
    // Where an end tag closes too much, a tree repeats formatting elements that are written once.
    const at = node.sourceCodeLocation?.startOffset
    const again = at !== undefined && node.attrs !== undefined && written.has(at)
    if (at !== undefined && node.attrs !== undefined) written.add(at)
    for (const name of watched) {
      const attribute = node.attrs?.find(
        (each) => (each.prefix ? `${each.prefix}:` : '') + each.name === name,
      )
      if (attribute && !again && at !== undefined)
        found.push(`${node.nodeName.toLowerCase()} ${name}=${attribute.value}`)
    }
    const text = node.childNodes?.map((child) => child.value ?? '').join('') ?? ''
    if ((node.nodeName === 'script' || node.nodeName === 'style') && text !== '')
      found.push(`${node.nodeName}: ${text}`)
    for (const child of [...(node.childNodes ?? []), ...(node.content ? [node.content] : [])]) visit(child)
  }
  visit(parse(html, { scriptingEnabled: false, sourceCodeLocationInfo: true }) as Node)
  return found.map(normal)
}

/** A parser turns line breaks into one form, and NUL into another character. */
function normal(text: string): string {
  return text.replace(/\r\n?/g, '\n').replaceAll('\0', '\ufffd')
}

test.each([
  ['quotes of all kinds', `<a href=x><a href='y'><a href="z"><a href = "w" ><a href=a/b/>`],
  ['a first attribute that counts', '<img src=a src=b SRC=c>'],
  ['character references', '<img src="a?x=1&amp;y=2&copy=3&#x2f;&notit;">'],
  [
    'comments of all kinds',
    '<!-- <img src=a> --><!--><img src=b><!---><img src=c><!--x--!><img src=d><!x <img src=e>><?x <img src=f>><img src=g></ <img src=h>>',
  ],
  ['a script that writes scripts', '<script>x="<script src=a></"+"script>"</script><img src=b>'],
  ['a script in a comment in a script', '<script><!-- <script>a</script> --></script><img src=b>'],
  ['a script after an empty comment', '<script><!--></script><img src=b>'],
  ['a script that ends in another case', '<script>a</SCRIPT ><img src=b>'],
  [
    'text elements',
    '<title><img src=a></title><textarea><img src=b></textarea><xmp><img src=c></xmp><img src=d>',
  ],
  ['a drawing with a title', '<svg><title/><use href=a /><style/><image xlink:href=b /></svg><img src=c>'],
  [
    'a drawing in a drawing',
    '<svg><svg><title><a href=x></a></title></svg><title/><use href=b /></svg><img src=c>',
  ],
  ['character data in a drawing', '<svg><![CDATA[<img src=a>]]><use href=b /></svg>'],
  ['a template', '<template><img src=a></template>'],
  ['no scripts allowed', '<noscript><img src=a></noscript>'],
  ['a tag cut off', '<img src=a><img src="b'],
  ['an attribute with an equals sign', '<img =src=a src=b>'],
  ['a slash in a value', '<a href=/x/><img src=y>'],
  ['a base', '<head><base href="/b/"><link href=x></head>'],
])('%s, as the standard has it', (_, html) => {
  const found = standard(html)
  expect(found.length).toBeGreaterThan(0)
  expect(ours(html)).toEqual(found)
})

// Elements that a parser would not move about: what is tested is the tokenizer.
const piece = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.constantFrom(
      '<img src=',
      '<a href="',
      "<p style='",
      '<b ',
      '<div>',
      '</div>',
      '<br/>',
      '<!--',
      '-->',
      '--!>',
      '<!',
      '<?',
      '</',
      '>',
      '/>',
      '"',
      "'",
      '=',
      ' ',
      '\n',
      '\t',
      '<',
      '/',
      '&amp;',
      '&lt',
      '&#47;',
      'src',
      'href=',
      'x',
      'a/b.png',
    ),
  },
  {
    weight: 2,
    arbitrary: fc.constantFrom(
      '<script>',
      '</script>',
      '<script',
      '</script',
      '</SCRIPT ',
      '<!--<script>',
      '<style>',
      '</style>',
      '<textarea>',
      '</textarea>',
      '<script src="x">',
    ),
  },
  { weight: 1, arbitrary: fc.string({ maxLength: 6 }) },
)

test('puzzles of tags, quotes, comments and scripts, as the standard has them', () => {
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 24 }), (pieces) => {
      const html = `<!doctype html><body>${pieces.join('')}`
      expect(ours(html)).toEqual(standard(html))
    }),
    { numRuns: 20_000, examples: [[['<div>', '<b ', '<script src="x">', '</div>', ' ']]] },
  )
})
