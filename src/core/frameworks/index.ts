import { UsageError } from '../model/errors.ts'
import { ordered } from '../model/ordered.ts'
import { unknown } from '../model/unknown.ts'
import { angular } from './angular.ts'
import { astro } from './astro.ts'
import { bun, esbuild, rollup, rspack, webpack } from './bundlers.ts'
import { docusaurus } from './docusaurus.ts'
import { eleventy } from './eleventy.ts'
import { ember, emberVite } from './ember.ts'
import { expo } from './expo.ts'
import { farm } from './farm.ts'
import type { Framework } from './framework.ts'
import { gatsby } from './gatsby.ts'
import { hexo } from './hexo.ts'
import { hugo } from './hugo.ts'
import { jekyll } from './jekyll.ts'
import { next } from './next.ts'
import { nuxt } from './nuxt.ts'
import { parcel } from './parcel.ts'
import { blazor, flutter } from './published-layouts.ts'
import { quasar } from './quasar.ts'
import { qwik } from './qwik.ts'
import { reactRouter } from './react-router.ts'
import { reactScripts } from './react-scripts.ts'
import { remixVite } from './remix-vite.ts'
import { rsbuild } from './rsbuild.ts'
import { rspress } from './rspress.ts'
import { slidev } from './slidev.ts'
import { solidstart } from './solidstart.ts'
import { stencil } from './stencil.ts'
import { storybook } from './storybook.ts'
import { sveltekit } from './sveltekit.ts'
import { tanstackStart } from './tanstack-start.ts'
import { umi } from './umi.ts'
import { vite } from './vite.ts'
import { vitepress } from './vitepress.ts'
import { vueCli } from './vue-cli.ts'
import { vuepress } from './vuepress.ts'
import { waku } from './waku.ts'

/** Every framework known, each before those it is `over`. */
export const frameworks: readonly Framework[] = /* @__PURE__ */ registered([
  angular,
  astro,
  blazor,
  bun,
  docusaurus,
  eleventy,
  ember,
  emberVite,
  esbuild,
  expo,
  farm,
  flutter,
  gatsby,
  hexo,
  hugo,
  jekyll,
  next,
  nuxt,
  parcel,
  quasar,
  qwik,
  reactRouter,
  reactScripts,
  remixVite,
  rollup,
  rsbuild,
  rspack,
  rspress,
  slidev,
  solidstart,
  stencil,
  storybook,
  sveltekit,
  tanstackStart,
  umi,
  vite,
  vitepress,
  vueCli,
  vuepress,
  waku,
  webpack,
])

/**
 * A list of frameworks, the more particular before the more general.
 * @throws {UsageError} when a name stands twice, when a framework is over one that there is none of, or when they go in a circle
 */
export function registered(list: readonly Framework[]): readonly Framework[] {
  // The general ones build anything: each of them is under every other.
  const above = ({ name, general }: Framework): string[] =>
    list
      .filter((other) => other.over.includes(name) || (general === true && other.general !== true))
      .map((other) => other.name)
  const names = new Set(list.map(({ name }) => name))
  for (const { name, over } of list) {
    const stranger = over.find((each) => !names.has(each))
    if (stranger !== undefined)
      throw new UsageError(
        `The framework ${name} is over ${stranger}. ${unknown('framework', stranger, [...names])}`,
      )
  }
  return ordered(list, {
    what: 'framework',
    nameOf: ({ name }) => name,
    titleOf: ({ title }) => title,
    before: above,
    relation: 'is under',
  })
}
