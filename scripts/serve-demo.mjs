// Serves the sound demo build below its base path, for looking at it. Not the host model: only a window onto the page.
import { preview } from 'vite'

const port = Number(process.argv[2] ?? 5199)
await preview({
  root: new URL('../dist/demo/sound', import.meta.url).pathname,
  preview: { port, host: '127.0.0.1', strictPort: true },
})
