import type { CallExpression, Program } from 'acorn'
import { joinRoute, type SourceRoute } from '../../model/source-route.ts'
import { isFunction, memberName, propertyOf, type SyntaxNode, textOf, walkTree } from '../../syntax/node.ts'
import { placeIn } from '../../syntax/place.ts'

/** Whether a text holds the words of a map of routes. Two searches: one pattern over both looks from every `.map` to the end. */
export function holdsRouteMap(text: string): boolean {
  const map = text.search(/\.map\s*\(/)
  return map >= 0 && /\bthis\.route\s*\(/.test(text.slice(map))
}

/** The routes of Ember's map: `this.route('sailing', { path: '/sailings/:id' }, function () { … })`. A name alone is its path. */
export function mappedRoutes(file: string, program: Program): SourceRoute[] {
  const found: SourceRoute[] = []
  const read = (body: SyntaxNode, above: string): void => {
    walkTree(body, (node) => {
      if (node.type !== 'CallExpression' || !isRoute(node)) return true
      const [name, ...more] = node.arguments
      const options = more.find((each) => each.type === 'ObjectExpression')
      const path = textOf(options && propertyOf(options, 'path')) ?? textOf(name)
      const inner = more.find((each) => isFunction(each))
      if (path === null) return false
      const pattern = joinRoute(above, path.replace(/\*\w+$/, '*'))
      // A route with others in it has a page of its own: its index.
      found.push({ pattern, place: placeIn(file)(node), kind: 'table' })
      if (inner) read(inner, pattern)
      return false
    })
  }
  read(program, '')
  return found
}

function isRoute({ callee }: CallExpression): boolean {
  return (
    callee.type === 'MemberExpression' &&
    callee.object.type === 'ThisExpression' &&
    memberName(callee) === 'route'
  )
}
