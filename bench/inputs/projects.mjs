// Writes a repository of many front ends, each built, with a package that all of them import.
import { existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

export function makeProjects(root, count) {
  const out = join(root, `projects-${count}`)
  if (existsSync(join(out, 'whole'))) return join(out, 'repository')
  const put = (path, text) => {
    const file = join(out, 'repository', path)
    mkdirSync(join(file, '..'), { recursive: true })
    writeFileSync(file, text)
  }
  put('package.json', '{"name":"skerry-line","private":true,"workspaces":["apps/*","packages/*"]}')
  put('packages/ui/package.json', '{"name":"@skerry/ui","main":"src/index.js"}')
  for (let i = 0; i < 50; i++)
    put(`packages/ui/src/part-${i}.js`, `export const part${i} = ${i}\n`.repeat(40))
  for (let i = 0; i < count; i++) project((path, text) => put(`apps/site-${i}/${path}`, text), i)
  writeFileSync(join(out, 'whole'), '')
  return join(out, 'repository')
}

function project(put, number) {
  put(
    'package.json',
    `{"name":"site-${number}","scripts":{"build":"vite build"},"dependencies":{"@skerry/ui":"*"},"devDependencies":{"vite":"8"}}`,
  )
  put('vite.config.js', `export default { base: '/site-${number}/' }\n`)
  put('index.html', '<!doctype html><script type="module" src="/src/main.js"></script>\n')
  for (let i = 0; i < 20; i++) put(`src/part-${i}.js`, `export const text${i} = 'sailing ${i}'\n`.repeat(30))
  const base = `/site-${number}/assets/`
  put(
    'dist/index.html',
    `<!doctype html><title>x</title><link rel="stylesheet" href="${base}main-AbCdEf12.css"><script type="module" src="${base}main-AbCdEf12.js"></script>\n`,
  )
  put('dist/assets/main-AbCdEf12.css', 'body{margin:0}\n')
  put('dist/assets/main-AbCdEf12.js', 'console.log("sailings");'.repeat(200))
}
