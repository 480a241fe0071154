import { extensionOf } from '../model/folder.ts'

/** Kinds of files by what they are to a page. */
export const weightKinds = ['page', 'script', 'style', 'font', 'image', 'other'] as const
export type WeightKind = (typeof weightKinds)[number]

const extensions: Readonly<Record<Exclude<WeightKind, 'other'>, string>> = {
  page: 'html htm xhtml',
  script: 'js mjs cjs wasm',
  style: 'css',
  font: 'woff2 woff ttf otf eot',
  image: 'png jpg jpeg gif webp avif svg ico bmp',
}

const byExtension = new Map(
  Object.entries(extensions).flatMap(([kind, list]) =>
    list.split(' ').map((extension) => [extension, kind as WeightKind] as const),
  ),
)

export function weightKindOf(path: string): WeightKind {
  return byExtension.get(extensionOf(path).replace('.', '')) ?? 'other'
}

const packed = /\.(?:png|jpe?g|gif|webp|avif|woff2?|mp4|webm|mov|mp3|ogg|m4a|zip|gz|br|zst|pdf|7z)$/i

/** Whether a file is compressed by its own form, so that a host sends it as it is. */
export function isPacked(path: string): boolean {
  return packed.test(path)
}
