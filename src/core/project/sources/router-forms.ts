/** How a router in the browser is made, and where it is given the path that its routes are below. */
export interface RouterForm {
  /** The name that its package exports; `default` for the package itself. */
  readonly name: string
  readonly as: 'call' | 'new' | 'element'
  /** The packages whose function is meant, where others have one of this name. */
  readonly from?: RegExp
  /** Of a call: which argument holds the base, by itself or as a member of an object. */
  readonly argument?: number
  readonly member?: string | null
  /** Of an element. */
  readonly attribute?: string
  /** It takes a base without its last slash. */
  readonly endsBare?: true
  /** It has routes in any case, whether or not their table is seen. */
  readonly isRouted?: true
  /** Given nothing, it takes the page's `<base>`. */
  readonly takesBaseOfPage?: true
  /** A member that has to say so, for the router to use paths at all. */
  readonly only?: { readonly member: string; readonly value: string }
}

/** React Router, Vue Router (4, and 3 by its class), the history package, TanStack Router, Solid's router, wouter, and routers by hand. */
export const routerForms: readonly RouterForm[] = [
  { name: 'createBrowserRouter', as: 'call', argument: 1, member: 'basename' },
  { name: 'createBrowserHistory', as: 'call', argument: 0, member: 'basename' },
  { name: 'createWebHistory', as: 'call', argument: 0, member: null, takesBaseOfPage: true },
  {
    name: 'createRouter',
    as: 'call',
    argument: 0,
    member: 'basepath',
    from: /^@tanstack\/\w+-router$/,
    isRouted: true,
  },
  { name: 'BrowserRouter', as: 'element', attribute: 'basename' },
  {
    name: 'Router',
    as: 'element',
    attribute: 'base',
    from: /^(?:@solidjs\/router|wouter(?:-preact)?)$/,
    endsBare: true,
  },
  { name: 'Router', as: 'element', attribute: 'basepath', from: /^@(?:reach|gatsbyjs\/reach)[/-]router$/ },
  {
    name: 'default',
    as: 'new',
    argument: 0,
    member: 'base',
    from: /^vue-router$/,
    only: { member: 'mode', value: 'history' },
  },
  { name: 'default', as: 'new', argument: 0, member: null, from: /^navigo$/, isRouted: true },
  {
    name: 'Router',
    as: 'new',
    argument: 1,
    member: 'baseUrl',
    from: /^@vaadin\/router$/,
    isRouted: true,
    takesBaseOfPage: true,
  },
]

/** A router that is there once its package is: nobody makes it, and it starts at the top until it is told otherwise. */
export interface StandingRouter {
  readonly from: RegExp
  /** What is used of it, and by that says that there are routes. */
  readonly used: RegExp
  /** Texts that tell it of a base, or that it uses no paths. */
  readonly told: RegExp
  /** What to do, for a base path that is given without its last slash. */
  readonly step: (base: string) => string
}

export const standingRouters: readonly StandingRouter[] = [
  {
    from: /^wouter(?:-preact)?$/,
    used: /^(?:Route|Switch)$/,
    told: /<Router\b|\bRouter\b[^;]{0,80}\bfrom\b/,
    step: (base) => `put <Router base="${base}"> from the same package around the routes`,
  },
  {
    from: /^preact-iso$/,
    used: /^(?:LocationProvider|Router|Route)$/,
    told: /BASE_URL|PUBLIC_URL|\bbase(?:Path)?\b/,
    step: (base) => `put ${base} before the path of every route: this router takes no base`,
  },
  {
    from: /^page$/,
    used: /^default$/,
    told: /\.base\s*\(|\bhashbang\b/,
    step: (base) => `call page.base('${base}') before the routes are given`,
  },
]
