import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterAll } from 'vitest'

const made: string[] = []

/** A new directory with these files, removed after the tests of the file. */
export function folderWith(files: Readonly<Record<string, string>>): string {
  const folder = mkdtempSync(join(tmpdir(), 'wardoscope-'))
  made.push(folder)
  for (const [path, text] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true })
    writeFileSync(join(folder, path), text)
  }
  return folder
}

/** Lets a project use the packages installed in this checkout. */
export function linkPackages(folder: string): void {
  symlinkSync(join(process.cwd(), 'node_modules'), join(folder, 'node_modules'), 'dir')
}

afterAll(() => {
  for (const folder of made) rmSync(folder, { recursive: true, force: true })
})
