// Writes pages linked at random, the same every time: of about 12 kB with 32 links and 8 requests each, or small ones.
import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const words =
  'ferry harbour tide island quay north chart winter sailing light skerry anchor deck cabin rope swell bay pier crew storm'.split(
    ' ',
  )

/** Usual pages, and small ones of about 5 kB with 20 links and 5 requests. */
export const usual = { name: 'pages', links: 30, pictures: 6, words: 60 }
export const small = { name: 'small-pages', links: 18, pictures: 3, words: 33 }

export function makePages(root, count, kind = usual) {
  const out = join(root, `${kind.name}-${count}`)
  if (existsSync(join(out, 'whole'))) return join(out, 'site')
  const random = randomFrom(7)
  const put = (path, text) => {
    const file = join(out, 'site', path)
    mkdirSync(join(file, '..'), { recursive: true })
    writeFileSync(file, text)
  }
  const drawing = '<svg xmlns="http://www.w3.org/2000/svg"/>'
  put('assets/site.css', 'body{background:url(swell.svg)}')
  put('assets/site.js', 'console.log(1)')
  put('assets/swell.svg', drawing)
  for (let i = 0; i < 20; i++) put(`assets/picture-${i}.svg`, drawing)
  for (let i = 0; i < count; i++) put(`${pathOf(i)}index.html`, page(i, count, random, kind))
  writeFileSync(join(out, 'whole'), '')
  return join(out, 'site')
}

function pathOf(page) {
  return page === 0 ? '' : `log/${Math.floor(page / 100)}/${page}/`
}

function page(number, count, random, kind) {
  const text = () => Array.from({ length: kind.words }, () => words[random(words.length)]).join(' ')
  // One link leads on, so that every page is found; the others lead anywhere.
  const links = Array.from({ length: kind.links }, (_, i) => (i === 0 ? (number + 1) % count : random(count)))
  const paragraphs = links.map((link) => `<p>${text()} <a href="/crossings/${pathOf(link)}">${link}</a></p>`)
  const pictures = Array.from(
    { length: kind.pictures },
    () => `<img src="/crossings/assets/picture-${random(20)}.svg" alt="">`,
  )
  return [
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Entry ${number}</title>`,
    '<link rel="stylesheet" href="/crossings/assets/site.css">',
    '<script type="module" src="/crossings/assets/site.js"></script></head><body>',
    '<nav><a href="/crossings/">Home</a> <a href="/crossings/log/0/1/">First</a></nav>',
    ...paragraphs,
    ...pictures,
    '</body></html>\n',
  ].join('\n')
}

function randomFrom(seed) {
  let state = seed
  return (below) => {
    state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff
    return (state >>> 8) % below
  }
}
