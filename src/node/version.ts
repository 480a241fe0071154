import { readFileSync } from 'node:fs'
import { packageRoot } from './package-root.ts'

/** The version in the package's manifest. */
export const version: string = readVersion()

function readVersion(): string {
  const manifest: unknown = JSON.parse(readFileSync(new URL('package.json', packageRoot), 'utf8'))
  const found =
    typeof manifest === 'object' && manifest !== null && 'version' in manifest ? manifest.version : null
  return typeof found === 'string' ? found : '0.0.0'
}
