import { checkCases, page } from '../../../../test/support/cases.ts'

const project = (html: string, server: string): Record<string, string> => ({
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'index.html': page(html),
  'server.js': server,
  'dist/index.html': page(html),
})
const fills = "const sent = template.replace('<!--app-html-->', rendered.html)\n"

checkCases('project/needs-server', {
  'a page that a server fills': {
    files: project('<div id="app"><!--app-html--></div>', `import x from 'x'\n${fills}`),
    finds: ['project/needs-server caution ×1'],
    says: ['server.js, line 2'],
  },
  'a page that a script has filled after the build': {
    files: {
      ...project('<div id="app"><!--app-html--></div>', fills),
      'dist/index.html': page('<div id="app"><p>Harbours</p></div>'),
    },
    finds: [],
  },
  'a comment that no script names': {
    files: project('<div id="app"><!-- drawn by app.js --></div>', fills),
    finds: [],
  },
  'a script that only speaks of it': {
    files: project('<div id="app"><!--app-html--></div>', '// the page holds <!--app-html--> no longer\n'),
    finds: [],
  },
})
