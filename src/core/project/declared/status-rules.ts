import type { Rule } from '../../model/rule.ts'
import type { Folded } from '../../syntax/value.ts'

/** Stands for the host of the site in an address that a rule gives in parts. */
export const ownHost = ':site-host'

type Members = ReadonlyMap<string, Folded>

/**
 * A rule that is written in parts, whatever its keys are exactly called: a condition (the status of the answer, the beginning of a path) and
 * a redirect (protocol, host, a beginning or a path in place of another, a status). Or a page for an error, with the status it is sent with.
 */
export function statusRuleOf(value: Folded): Rule | null {
  if (value.kind !== 'object') return null
  const { members } = value
  const condition = objectAt(members, /^(?:conditions?|when|if)$/i)
  const redirect = objectAt(members, /^(?:redirect|action|then)$/i)
  const place = value.at
  if (redirect) return redirectRule(condition?.members ?? new Map(), redirect.members, place)
  return errorPage(members, place)
}

function redirectRule(condition: Members, redirect: Members, place: Rule['place']): Rule | null {
  const status = numberAt(condition, /status|error|code/i)
  const prefix = textAt(condition, /prefix|path|beginning/i)
  const known = [...condition.keys()].filter((key) => !/status|error|code|prefix|path|beginning/i.test(key))
  const host = textAt(redirect, /host|domain/i)
  const protocol = textAt(redirect, /protocol|scheme/i)
  const otherPrefix = textAt(redirect, /prefix/i)
  const otherPath = textAt(redirect, /^(?!.*prefix).*(?:key|path|uri)/i)
  const says = [host, protocol, otherPrefix, otherPath].some((each) => each !== null)
  if (!says || (status === null && prefix === null && condition.size > 0 && known.length === condition.size))
    return null
  const beginning = (prefix ?? '').replace(/^\//, '')
  const origin = host || protocol ? `${protocol ?? 'https'}://${host ?? ownHost}` : ''
  const to =
    otherPath !== null
      ? `/${otherPath.replace(/^\//, '')}`
      : `/${(otherPrefix ?? beginning).replace(/^\//, '')}:splat`
  // A beginning that ends within a step is one of names, and not of a directory.
  const conditions = beginning === '' || beginning.endsWith('/') ? known : [...known, beginning]
  return {
    from: `/${beginning}*`,
    to: origin + to,
    status: numberAt(redirect, /status|code/i) ?? 301,
    forced: status === null,
    conditions,
    place,
    ...(status !== null && { onStatus: [status] }),
  }
}

function errorPage(members: Members, place: Rule['place']): Rule | null {
  const status = numberAt(members, /^(?:http)?error(?:status)?_?code$|^(?:error_?)?status$/i)
  const page = textAt(members, /page|document/i)
  if (status === null || status < 400 || page === null || !page.startsWith('/')) return null
  const sent = numberAt(members, /^response_?(?:status)?_?code$/i) ?? status
  return { from: '/*', to: page, status: sent, forced: false, conditions: [], place, onStatus: [status] }
}

function objectAt(members: Members, name: RegExp): (Folded & { kind: 'object' }) | null {
  for (const [key, value] of members) if (name.test(key) && value.kind === 'object') return value
  return null
}

function textAt(members: Members, name: RegExp): string | null {
  for (const [key, value] of members)
    if (
      name.test(key) &&
      value.kind === 'value' &&
      typeof value.value === 'string' &&
      !/^\d{3}$/.test(value.value)
    )
      return value.value
  return null
}

function numberAt(members: Members, name: RegExp): number | null {
  for (const [key, value] of members) {
    const number = name.test(key) && value.kind === 'value' ? Number(value.value) : Number.NaN
    if (Number.isInteger(number) && number >= 200 && number < 600) return number
  }
  return null
}
