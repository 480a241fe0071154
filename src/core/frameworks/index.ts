import { angular } from './angular.ts'
import { astro } from './astro.ts'
import { esbuild, rollup, webpack } from './bundlers.ts'
import { docusaurus } from './docusaurus.ts'
import { eleventy } from './eleventy.ts'
import type { Framework } from './framework.ts'
import { gatsby } from './gatsby.ts'
import { hugo } from './hugo.ts'
import { jekyll } from './jekyll.ts'
import { next } from './next.ts'
import { nuxt } from './nuxt.ts'
import { parcel } from './parcel.ts'
import { blazor, flutter } from './published-layouts.ts'
import { qwik } from './qwik.ts'
import { reactRouter } from './react-router.ts'
import { reactScripts } from './react-scripts.ts'
import { remixVite } from './remix-vite.ts'
import { solidstart } from './solidstart.ts'
import { storybook } from './storybook.ts'
import { sveltekit } from './sveltekit.ts'
import { tanstackStart } from './tanstack-start.ts'
import { vite } from './vite.ts'
import { vitepress } from './vitepress.ts'
import { vueCli } from './vue-cli.ts'

/** Every framework known, the more particular before the more general. */
export const frameworks: readonly Framework[] = [
  next,
  nuxt,
  gatsby,
  astro,
  sveltekit,
  tanstackStart,
  solidstart,
  qwik,
  remixVite,
  reactRouter,
  vitepress,
  docusaurus,
  angular,
  reactScripts,
  vueCli,
  eleventy,
  hugo,
  jekyll,
  flutter,
  blazor,
  vite,
  parcel,
  storybook,
  webpack,
  rollup,
  esbuild,
]
