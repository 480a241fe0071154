/** The types of nginx's own `mime.types` for what web builds hold; it has none for `.mjs`, `.webmanifest` and source maps. */
const usual = `text/html html htm shtml
text/css css
text/xml xml
text/plain txt
text/mathml mml
text/vtt vtt
image/gif gif
image/jpeg jpeg jpg
image/png png
image/webp webp
image/avif avif
image/svg+xml svg svgz
image/tiff tif tiff
image/x-icon ico
image/x-jng jng
image/x-ms-bmp bmp
application/javascript js
application/atom+xml atom
application/rss+xml rss
application/json json
application/pdf pdf
application/rtf rtf
application/wasm wasm
application/zip zip
application/xhtml+xml xhtml
application/xspf+xml xspf
application/octet-stream bin exe dll deb dmg iso img msi
application/x-7z-compressed 7z
application/vnd.google-earth.kml+xml kml
application/vnd.apple.mpegurl m3u8
font/woff woff
font/woff2 woff2
audio/midi mid midi kar
audio/mpeg mp3
audio/ogg ogg
audio/x-m4a m4a
video/3gpp 3gpp 3gp
video/mp2t ts
video/mp4 mp4
video/mpeg mpeg mpg
video/quicktime mov
video/webm webm
video/x-flv flv
video/x-m4v m4v
video/x-msvideo avi`

/** By extension, in small letters. */
export type Types = ReadonlyMap<string, string>

export const usualTypes: Types = typesOf(usual.split('\n').map((line) => line.split(' ')))

/** What nginx knows where no types are configured. */
export const builtInTypes: Types = new Map([
  ['html', 'text/html'],
  ['gif', 'image/gif'],
  ['jpg', 'image/jpeg'],
])

/** Lines of a type and its extensions. */
export function typesOf(lines: readonly (readonly string[])[]): Map<string, string> {
  return new Map(
    lines.flatMap(([type = '', ...extensions]) =>
      extensions.map((extension): [string, string] => [extension.toLowerCase(), type]),
    ),
  )
}
