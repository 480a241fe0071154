import { expect, test } from 'vitest'
import { isCatchAll, plainPattern } from '../model/source-route.ts'
import { frameworks } from './index.ts'
import { fileRoutes, flatPage } from './page-files.ts'

function pagesOf(framework: string, ...paths: string[]): string[] {
  const rules = frameworks.find(({ name }) => name === framework)
  return (rules?.pages ?? []).flatMap((pages) => fileRoutes(paths, pages)).map(({ pattern }) => pattern)
}

test.each<[string, string[], string[]]>([
  [
    'next',
    [
      'app/page.tsx',
      'app/(shop)/tickets/page.tsx',
      'app/sailings/[id]/page.jsx',
      'app/layout.tsx',
      'app/_parts/page.tsx',
      'app/@side/page.js',
    ],
    ['/', '/tickets', '/sailings/:id', '/'],
  ],
  [
    'next',
    ['app/feed/(..)photo/[id]/page.tsx', 'app/docs/[[...slug]]/page.mdx', 'app/api/x/route.ts'],
    ['/docs/*'],
  ],
  [
    'next',
    ['pages/index.js', 'pages/_app.js', 'pages/api/x.js', 'pages/blog/[slug].tsx', 'pages/404.js'],
    ['/', '/blog/:slug'],
  ],
  [
    'nuxt',
    [
      'app/pages/index.vue',
      'app/pages/sailings/[id].vue',
      'app/pages/[[lang]]/about.vue',
      'app/pages/[...slug].vue',
    ],
    ['/', '/sailings/:id', '/about', '/*'],
  ],
  [
    'sveltekit',
    [
      'src/routes/+page.svelte',
      'src/routes/(app)/a/[id=integer]/+page.svelte',
      'src/routes/x/+page@.svelte',
      'src/routes/+layout.svelte',
      'src/routes/[...rest]/+page.svelte',
    ],
    ['/', '/a/:id', '/x', '/*'],
  ],
  [
    'astro',
    ['src/pages/index.astro', 'src/pages/blog/[slug].md', 'src/pages/_draft.astro', 'src/pages/feed.js'],
    ['/', '/blog/:slug'],
  ],
  [
    'gatsby',
    [
      'src/pages/index.js',
      'src/pages/products/{Product.slug}.js',
      'src/pages/app/[...].js',
      'src/pages/404.js',
    ],
    ['/', '/products/:slug', '/app/*'],
  ],
  ['solidstart', ['src/routes/index.tsx', 'src/routes/(site)/a/[id].tsx'], ['/', '/a/:id']],
  ['qwik', ['src/routes/index.tsx', 'src/routes/a/[id]/index.tsx', 'src/routes/layout.tsx'], ['/', '/a/:id']],
  [
    'remix',
    [
      'app/routes/_index.jsx',
      'app/routes/harbours.$slug.jsx',
      'app/routes/_auth.login.jsx',
      'app/routes/_auth.jsx',
      'app/routes/a_.b.jsx',
      'app/routes/$.jsx',
      'app/routes/c/route.jsx',
    ],
    ['/', '/harbours/:slug', '/login', '/a/b', '/*', '/c'],
  ],
  [
    'tanstack-start',
    [
      'src/routes/__root.tsx',
      'src/routes/index.tsx',
      'src/routes/posts/$postId.tsx',
      'src/routes/(group)/a.tsx',
      'src/routes/_layout/b.tsx',
      'src/routes/-parts.tsx',
    ],
    ['/', '/posts/:postId', '/a', '/b'],
  ],
  ['vite', ['src/pages/index.tsx'], []],
])('%s makes pages of %j', (framework, paths, expected) => {
  expect(pagesOf(framework, ...paths)).toEqual(expected)
})

test('names whose points are slashes, with a name escaped', () => {
  expect(flatPage('sitemap[.]xml')).toBe('/sitemap.xml')
})

test.each([
  ['/a/:id?', '/a'],
  ['/a/:id(\\d+)', '/a/:id'],
  ['/a/:rest+', '/a/:rest'],
])('%s has the plain form %s', (pattern, plain) => {
  expect(plainPattern(pattern)).toBe(plain)
})

test.each([
  ['*', true],
  ['/a/*', true],
  ['/**', true],
  ['/:pathMatch(.*)*', true],
  ['/a/:id', false],
])('%s takes all: %s', (pattern, all) => {
  expect(isCatchAll(pattern)).toBe(all)
})
