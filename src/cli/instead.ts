import { UsageError } from '../core/model/errors.ts'

/** `--instead origin=address`: where an origin is asked in place of its own. @throws {UsageError} when it is none */
export function insteadOf(text: string): [string, string] {
  const [from = '', to = ''] = text.split('=')
  if (URL.canParse(from) && /^https?:/.test(to) && URL.canParse(to))
    return [new URL(from).origin, new URL(to).origin]
  throw new UsageError(
    `"${text}" names no other address. Write one as in --instead https://api.skerryline.example=http://127.0.0.1:8787.`,
  )
}
