import { expect, test } from 'vitest'
import { page } from '../../../test/support/cases.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { surveyProject } from './survey-project.ts'

const site = { 'index.html': page('<script src="app.js"></script>'), 'app.js': '' }

/** Where the site is taken to be, in a project that holds a built site there and these files beside it. */
async function publishedFrom(directory: string, beside: Record<string, string>): Promise<unknown> {
  const built = Object.entries(site).map(([path, text]) => [`${directory}/${path}`, text])
  const found = await surveyProject(
    new MemoryFolder({
      'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      '.gitignore': 'dist\nout\n',
      ...Object.fromEntries(built),
      ...beside,
    }),
  )
  return found?.survey.publishDirectory?.value
}

test('where the default directory is not there, what the repository leaves out is the site', async () => {
  expect(await publishedFrom('out', {})).toBe('out')
})

test('a default directory that holds something is the one, with a page or without', async () => {
  expect(await publishedFrom('out', { 'dist/app.js': '' })).toBe('dist')
  expect(await publishedFrom('dist', { 'out/app.js': '' })).toBe('dist')
})
