import { defineFramework } from './framework.ts'

/** Hexo. Checked against 7.3. Without a `root`, the path of its address is the base. */
export const hexo = defineFramework({
  name: 'hexo',
  title: 'Hexo',
  over: ['vite', 'parcel', 'jekyll'],
  markers: ['hexo'],
  configFiles: ['_config.yml', '_config.yaml', '_config.json'],
  // Others have a file of this name too.
  isOwn: () => false,
  commands: ['hexo generate', 'hexo g'],
  settings: {
    publishDirectory: { config: ['public_dir'], default: 'public' },
    basePath: { config: ['root', 'url'], url: true, default: '/' },
    siteAddress: { config: ['url'] },
  },
  signs: { page: [/<meta name="generator" content="Hexo/] },
  fixes: {
    keeps: /\.(?:html?|md|swig|njk|ejs|pug)$/,
    rebasesPictures: true,
    setBase: (base) => `root: ${base}`,
    setSite: ({ origin, base }) => `url: ${origin}${base}`,
    environmentFile: null,
    // Pages that did not change are taken from its database, with the base path that they had.
    freshBy: 'npx hexo clean',
  },
})
