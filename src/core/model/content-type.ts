import { lookup, mimes } from 'mrmime'
import { extensionOf } from './folder.ts'

/** What the package leaves out, as nginx and Debian's list of media types have it. */
const more = new Map(
  Object.entries({
    avi: 'video/x-msvideo',
    cur: 'image/x-icon',
    eot: 'application/vnd.ms-fontobject',
    flac: 'audio/flac',
    hdr: 'image/vnd.radiance',
    ico: 'image/x-icon',
    kml: 'application/vnd.google-earth.kml+xml',
    m3u8: 'application/vnd.apple.mpegurl',
    usdz: 'model/vnd.usdz+zip',
    vcf: 'text/vcard',
  }),
)

/** The content type a well-kept host sends for a file name, or null when it knows none. */
export function contentTypeOf(path: string): string | null {
  const known: unknown = lookup(path)
  // The package's table is a plain object: of "a.constructor" it knows a function.
  return typeof known === 'string' ? known : (more.get(extensionOf(path)) ?? null)
}

const extensions = new Set([...Object.keys(mimes), ...more.keys()])

/** Whether files of this extension, in any letter case, have a content type. */
export function isKnownExtension(extension: string): boolean {
  return extensions.has(extension) || extensions.has(extension.toLowerCase())
}

const shown = /\.(?:png|jpe?g|gif|webp|avif|svg|ico|mp4|webm|mp3|ogg|pdf|glb|gltf|json|geojson|csv)$/i

/** Whether a path names what elements show, or data that scripts read: other words of code hardly end like that. */
export function isForElement(path: string): boolean {
  return shown.test(path)
}
