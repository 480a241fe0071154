import type { Plugin } from 'vite'
import { type SampleFile, sampleFiles } from './files.ts'

/** Puts the files of the made-up releases beside the page, with a list of their names. They are made when first asked for. */
export function sample(): Plugin {
  let made: Promise<readonly SampleFile[]> | null = null
  const files = async (): Promise<readonly SampleFile[]> => {
    made ??= sampleFiles()
    const all = await made
    return [{ name: 'index.json', text: JSON.stringify(all.map(({ name }) => name)) }, ...all]
  }
  return {
    name: 'release-log-sample',
    configureServer({ middlewares }) {
      middlewares.use('/sample', async ({ url = '' }, response, next) => {
        const found = (await files()).find(({ name }) => url === `/${name}`)
        if (!found) return next()
        response.setHeader('content-type', 'application/json')
        response.end(found.text)
      })
    },
    async generateBundle() {
      for (const { name, text } of await files())
        this.emitFile({ type: 'asset', fileName: `sample/${name}`, source: text })
    },
  }
}
