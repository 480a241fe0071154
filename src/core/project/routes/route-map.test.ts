import { expect, test } from 'vitest'
import { parseSource } from '../../syntax/parse.ts'
import { holdsRouteMap, mappedRoutes } from './route-map.ts'

const source = `Router.map(function () {
  this.route('harbours')
  this.route('sailing', { path: '/sailings/:sailing_id' }, function () {
    this.route('seats')
    this.route('top', { path: '/' })
  })
  this.route('not-found', { path: '/*path' })
})`

test('a map of routes: names are paths, routes lie below those that hold them', () => {
  expect(holdsRouteMap(source)).toBe(true)
  expect(
    mappedRoutes('app/router.js', parseSource('app/router.js', source)).map(({ pattern, place }) => [
      pattern,
      place.line,
    ]),
  ).toEqual([
    ['/harbours', 2],
    ['/sailings/:sailing_id', 3],
    ['/sailings/:sailing_id/seats', 4],
    ['/sailings/:sailing_id', 5],
    ['/*', 7],
  ])
})
