import type { RouterBaseText } from '../../model/facts.ts'
import type { Mentions } from '../words.ts'
import { codeBefore, type Literals } from './literal.ts'

/**
 * What is passed to a router as the path before its routes: `{basename:"/b"}` (React Router), `{basepath:"/b"}` (TanStack
 * Router), `{history:x("/b/"),…}` (Vue Router, whose maker has lost its name in a build).
 */
const before = /[{,](?:base(?:name|path):|history:[\w$.]+\()$/

/** What such members are found by. */
export const baseWords = ['basename:', 'basepath:', 'history:']

/** Texts that a router in this script is given as its base. The top is none: routers have it where they are given nothing. */
export function routerBasesIn(code: string, literals: Literals, mentions: Mentions): RouterBaseText[] {
  if (!baseWords.some((word) => mentions.has(word))) return []
  return literals.telling.flatMap(({ value, start, end, first, last }) =>
    first && last && /^\/[\w~-][\w~./-]*$/.test(value) && before.test(codeBefore(code, start - 1, 60))
      ? [{ path: value, offset: start, length: end - start }]
      : [],
  )
}
