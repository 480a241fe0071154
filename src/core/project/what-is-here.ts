import { extensionOf, type Folder, listIfThere, within } from '../model/folder.ts'

/** Directories down in which a page or a source is looked for. */
const deepest = 2

/** Files that only sources have: what a build makes of them has other names. */
const sources = /(?<!\.d)\.[cm]?tsx?$|\.(?:jsx|vue|svelte|astro|scss|sass|less|styl|mdx)$/

/** Files that a build folder is made of. */
const servable = /\.(?:html?|xhtml|m?js|css|wasm)$/i

/** A template that a server fills in and sends as the entry page. */
export const entryTemplate =
  /^index\.(?:html?\.)?(?:ejs|template|tmpl|tpl|hbs|handlebars|mustache|gohtml|phtml)$/

/** Whether a page is in the folder or a few directories down. */
export function holdsPage(folder: Folder): Promise<boolean> {
  return holds(folder, (name) => extensionOf(name) === 'html', deepest)
}

/** Whether sources are there. */
export function holdsSources(folder: Folder): Promise<boolean> {
  return holds(folder, (name) => sources.test(name), deepest)
}

/** Whether anything is there that a browser would be sent: a page, a template of one, a script, a style sheet. */
export function holdsSite(folder: Folder): Promise<boolean> {
  return holds(folder, (name) => servable.test(name) || entryTemplate.test(name), deepest)
}

async function holds(folder: Folder, fits: (name: string) => boolean, depth: number): Promise<boolean> {
  const entries = (await listIfThere(folder, '')) ?? []
  if (entries.some(({ name, kind }) => kind === 'file' && fits(name))) return true
  if (depth === 0) return false
  for (const { name, kind } of entries) {
    if (kind !== 'directory' || name === 'node_modules' || name.startsWith('.')) continue
    if (await holds(within(folder, name), fits, depth - 1)) return true
  }
  return false
}
