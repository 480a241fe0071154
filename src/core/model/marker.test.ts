import { expect, test } from 'vitest'
import { markerIn } from './marker.ts'

test.each([
  ['%PUBLIC_URL%/icon.png', '%PUBLIC_URL%'],
  ['%BASE_URL%icon.png', '%BASE_URL%'],
  ['%sveltekit.assets%/icon.png', '%sveltekit.assets%'],
  ['<%= BASE_URL %>icon.png', '<%= BASE_URL %>'],
  ['%3C%=%20BASE_URL%20%%3Eicon.png', '<%= BASE_URL %>'],
  ['%3C%25=%20BASE_URL%20%25%3Eicon.png', '<%= BASE_URL %>'],
  ['{{ url }}/a.png', '{{ url }}'],
  ['%7B%7Burl%7D%7D/a.png', '{{url}}'],
  ['${base}/a.png', '${base}'],
  ['[[base]]/a.png', '[[base]]'],
  ['$FLUTTER_BASE_HREF', '$FLUTTER_BASE_HREF'],
  ['__BASE_PATH__/a.png', '__BASE_PATH__'],
  ['<?= $base ?>a.png', '<?= $base ?>'],
  ['%%BASE%%/a.png', '%%BASE%%'],
  ['@@BASE@@/a.png', '@@BASE@@'],
  ['::base::/a.png', '::base::'],
  ['%BASE%/a.png', '%BASE%'],
])('%s holds a marker', (raw, expected) => {
  expect(markerIn(raw)).toBe(expected)
})

test.each([
  '/h%C3%A4fen.png',
  '/%E3%81%82%E3%81%84.png',
  '/A%20B%20C.png',
  '/a%C3%A4FEN%20x.png',
  '/100%25.png',
  '/a$b.png',
  '/__data.json',
  '/[slug].js',
  '/pages/%5B%5B...slug%5D%5D-4f7d20aa.js',
  '/$price.png',
  '/_app/__layout.js',
  '/docs/std::vector::end.html',
  '/%BA%5E%AB%CD.png',
  '/@scope/a@2.js',
])('%s holds none', (raw) => {
  expect(markerIn(raw)).toBeNull()
})
