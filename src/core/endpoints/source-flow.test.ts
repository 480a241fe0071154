import { expect, test } from 'vitest'
import { Sources } from '../project/sources/sources.ts'
import { SourceFlow } from './source-flow.ts'

const url = 'http://localhost:3000'

test.each<[string, string, string | null]>([
  [
    'what a package makes is asked',
    `import make from 'm'\nmake('${url}').options({}).get('/tides')`,
    'client',
  ],
  [
    'by the name that keeps it',
    `import make from 'm'\nconst api = make('${url}')\napi.post('/tides')`,
    'client',
  ],
  [
    'a link is made with it',
    `import { batchLink } from 'm'\nstart({ links: [batchLink({ url: '${url}' })] })`,
    'client',
  ],
  [
    'a state keeps it, and it is fetched',
    `import { ref } from 'm'\nconst s = ref('${url}')\nfetch(s.value + '/x')`,
    'fetch',
  ],
  [
    'a hook keeps it',
    `import { useState } from 'm'\nconst [u] = useState('${url}')\nfetch(u + '/x')`,
    'fetch',
  ],
  [
    'a state keeps it, and it is shown',
    `import { ref } from 'm'\nconst s = ref('${url}')\nshow(s.value)`,
    null,
  ],
  ['a store gives it back', `import { atom } from 'm'\nconst a = atom('${url}')\nshow(a.get())`, null],
  ['settings keep it', `import { map } from 'm'\nconst s = map({ url: '${url}' })\nshow(s.get().url)`, null],
  ['a function of this project takes it', `import make from './m'\nmake('${url}').get('/tides')`, null],
])('%s', (_, code, sink) => {
  expect(new SourceFlow(new Sources(new Map([['src/a.js', code]]))).ofText(url)).toBe(sink)
})
