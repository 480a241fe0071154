import type { Payload } from '../../src/core/report/formats/html.ts'

/** Reads what the page holds in itself; null when it was cut off. */
export function readPayload(root: Document): Payload | null {
  try {
    return JSON.parse(root.getElementById('report')?.textContent ?? '') as Payload
  } catch {
    return null
  }
}
