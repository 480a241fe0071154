import { readFileSync } from 'node:fs'

/** The version in the package's manifest, which stands two directories above this file in source and in the package. */
export const version: string = readVersion()

function readVersion(): string {
  const manifest: unknown = JSON.parse(readFileSync(new URL('../../package.json', import.meta.url), 'utf8'))
  const found =
    typeof manifest === 'object' && manifest !== null && 'version' in manifest ? manifest.version : null
  return typeof found === 'string' ? found : '0.0.0'
}
