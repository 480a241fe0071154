import type { GivenFile } from './useLog.ts'

/** The files of the made-up releases, which lie beside the page. */
export async function sampleFiles(): Promise<GivenFile[]> {
  const list = await fetch(new URL('sample/index.json', document.baseURI))
  const names = (await list.json()) as string[]
  return Promise.all(
    names.map(async (name) => {
      const response = await fetch(new URL(`sample/${name}`, document.baseURI))
      const text = await response.text()
      return { name, size: text.length, lastModified: 0, text: async () => text }
    }),
  )
}
