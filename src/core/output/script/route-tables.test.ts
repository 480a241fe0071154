import { expect, test } from 'vitest'
import { isBehindHash, routeTablesIn } from './route-tables.ts'

test.each<[string, string, string[]]>([
  [
    'React Router, objects',
    'r=a([{path:"/",element:(0,j.jsx)(B,{}),children:[{index:!0,element:c},{path:"sailings/:id",lazy:()=>import("./s.js")},{path:"*",element:d}]}])',
    ['/sailings/:id'],
  ],
  [
    'React Router, elements',
    '(0,j.jsx)(R,{children:(0,j.jsxs)(T,{element:(0,j.jsx)(L,{}),children:[(0,j.jsx)(T,{path:"harbours",element:(0,j.jsx)(H,{})}),(0,j.jsxs)(T,{path:"admin",children:[(0,j.jsx)(T,{path:"users/:id?",element:x})]})]})})',
    ['/harbours', '/admin/users'],
  ],
  [
    'Vue Router',
    'c=l({history:h("/b/"),routes:[{path:`/`,name:`home`,component:H},{path:`/sailings/:id(\\\\d+)`,component:()=>m(()=>import(`./s.js`),[])},{path:`/old`,redirect:`/`},{path:"/:pathMatch(.*)*",component:N}]})',
    ['/', '/sailings/:id'],
  ],
  [
    'Angular',
    'x=[{path:"",component:A},{path:"sailings/:id",loadComponent:()=>import("./c.js").then(e=>e.S)},{path:"admin",loadChildren:()=>import("./d.js")},{path:"**",redirectTo:""}]',
    ['/', '/sailings/:id'],
  ],
  [
    'TanStack Router',
    'a=S.update({id:"/sailings/$id",path:"/sailings/$id",getParentRoute:()=>r}),b=T.update({id:"/_layout/harbours/",path:"/harbours/",getParentRoute:()=>r})',
    ['/sailings/:id', '/harbours'],
  ],
  [
    'TanStack Router, made by hand',
    'r=m({}),a=o({getParentRoute:()=>r,path:"/",component:x}),b=o({getParentRoute:()=>r,path:"/harbours",component:y}),c=o({getParentRoute:()=>b,path:"$id"})',
    ['/', '/harbours', '/harbours/:id'],
  ],
  [
    'SvelteKit',
    'const d={"/":[2],"/(app)/sailings/[id]":[3,[0]],"/files/[...rest]":[~4]};',
    ['/', '/sailings/:id'],
  ],
  ['icons', 'i=[{path:"M0 0L10 10",name:"x"},{path:"M1 1",component:a}]', []],
  ['files', 'i=[{path:"/a/b.png",name:"x"},{path:"/c",size:3}]', []],
  ['a broken script', 'i=[{path:"/a",component:', []],
])('the routes of %s', (_, code, expected) => {
  expect((routeTablesIn(code)?.routes ?? []).map(({ pattern }) => pattern)).toEqual(expected)
})

test('a route is placed at its path', () => {
  const code = 'a();r=[{path:"/sailings",component:S}]'
  const [route] = routeTablesIn(code)?.routes ?? []
  expect(code.slice(route?.offset, (route?.offset ?? 0) + (route?.length ?? 0))).toBe('"/sailings"')
})

test.each([
  'w(o.pathname.charAt(0)==="/","relative pathnames are not supported in hash history.push("+s+")");r=[{path:"/a",element:b}]',
  'function h(e){return e=location.host?e||location.pathname+location.search:"",e.includes("#")||(e+="#"),w(e)}r=[{path:"/a",component:b}]',
  'path(e=!1){let t=this._platformLocation.hash??"#";return t.length>0?t.substring(1):t}r=[{path:"a",component:b}]',
])('a router behind a hash is told: %#', (code) => {
  expect(isBehindHash([{ builtRoutes: routeTablesIn(code) }])).toBe(true)
})

test('Vue Router 3 keeps paths behind a hash unless a script says otherwise', () => {
  const library = {
    builtRoutes: routeTablesIn('switch(m){case"history":a();break;case"hash":b();break;case"abstract":c()}'),
  }
  const app = (mode: string): { builtRoutes: ReturnType<typeof routeTablesIn> } => ({
    builtRoutes: routeTablesIn(`new V({${mode}routes:[{path:"/a",component:b}]})`),
  })
  expect(isBehindHash([library, app('')])).toBe(true)
  expect(isBehindHash([library, app('mode:"hash",base:"",')])).toBe(true)
  expect(isBehindHash([library, app('mode:"history",')])).toBe(false)
  expect(isBehindHash([app('')])).toBe(false)
})

test('many beginnings of tables are read in bounded time', () => {
  expect(routeTablesIn('[{path:"/a",b:'.repeat(50_000))).toBeNull()
  expect(routeTablesIn('[{path:"/a",component:b},'.repeat(5_000))).toBeNull()
})
