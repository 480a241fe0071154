import type { HostFiles } from './host.ts'

/** What stands at a path of a server's own disk. */
export type DiskKind = 'file' | 'directory' | null

/** The folder as it stands on a server's disk: at one directory there, and nothing beside it. */
export function diskOf(files: HostFiles, mount: string): (path: string) => DiskKind {
  return (path) => {
    const whole = tidy(path)
    const inside = insideOf(whole, mount)
    if (inside === null) return mount.startsWith(`${whole}/`) || whole === '' ? 'directory' : null
    if (inside === '') return 'directory'
    if (files.has(inside)) return path.endsWith('/') ? null : 'file'
    return files.isDirectory(inside) ? 'directory' : null
  }
}

/** A path of the disk from the folder's own top; null for one outside. */
export function insideOf(path: string, mount: string): string | null {
  const whole = tidy(path)
  if (whole === mount) return ''
  return whole.startsWith(`${mount}/`) ? whole.slice(mount.length + 1) : null
}

/** A path with one slash where several are, and none at its end. */
export function tidy(path: string): string {
  return path.replace(/\/{2,}/g, '/').replace(/(?<=[^/])\/$|^\/$/, '')
}
