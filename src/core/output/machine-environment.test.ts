import { describe, expect, test } from 'vitest'
import { coverCredentials } from './credentials.ts'
import { machineEnvironmentsIn } from './machine-environment.ts'

const variables: Record<string, string> = {
  SHLVL: '1',
  npm_config_user_agent: 'npm/10.8.2 node/v20.1.0 linux x64',
  HOME: '/home/ferry',
  npm_lifecycle_event: 'build',
  LS_COLORS: 'rs=0:di=01;34:ln=01;36',
  'BASH_FUNC_x%%': "() { echo '{'\n}",
  USER: 'ferry',
  MAIL_RELAY: 'anchor-9-harbour',
  LANG: 'C.UTF-8',
  PWD: '/home/ferry/site',
  INIT_CWD: '/home/ferry/site',
  NODE: '/usr/bin/node',
  PATH: '/home/ferry/site/node_modules/.bin:/usr/local/bin:/usr/bin',
}
const json = JSON.stringify(variables)
/** As minifiers write it: no quotes around names that need none, other quotes around texts. */
const minified = Object.entries(variables)
  .map(([name, value]) => `${/^\w+$/.test(name) ? name : `"${name}"`}:\`${value}\``)
  .join(',')

describe('is the environment of a machine', () => {
  test.each([
    ['as data', `const e=${json};f(e.MODE)`],
    ['as a minifier writes it', `var e={${minified}},n=e.MODE`],
    ['in a text that is parsed', `const e=JSON.parse('${json.replaceAll("'", '')}')`],
    ['on lines of its own', `process.env = ${JSON.stringify(variables, null, 2)}`],
    [
      'of Windows',
      `const e={npm_command:"run",${['APPDATA', 'COMPUTERNAME', 'ComSpec', 'OS', 'SystemRoot', 'TEMP', 'USERNAME', 'windir', 'A', 'B'].map((name) => `${name}:"C:\\\\x"`).join(',')},Path:"C:\\\\Windows\\\\system32;C:\\\\Windows",USERPROFILE:"C:\\\\Users\\\\ferry"}`,
    ],
  ])('%s', (_, text) => {
    const [found, ...more] = machineEnvironmentsIn(text)
    expect(more).toEqual([])
    expect(found?.reason).toMatch(/^1[23] variables, (?:PATH and HOME|Path and USERPROFILE) among them$/)
    const covered = coverCredentials(text)
    expect(covered).toHaveLength(text.length)
    expect(covered).not.toMatch(/ferry|anchor|PATH/i)
  })

  test('twice in one file', () => {
    expect(machineEnvironmentsIn(`a(${json});b({x:1});c({${minified}})`)).toHaveLength(2)
  })
})

test.each([
  [
    'what a compiler of C gives its programs',
    'var t={USER:"web_user",LOGNAME:"web_user",PATH:"/",PWD:"/",HOME:"/home/web_user",LANG:"C",_:"./this.program"}',
  ],
  [
    'a terminal that a page plays',
    'new Shell({env:{HOME:"/home/guest",USER:"guest",PATH:"/usr/local/bin:/usr/bin",PWD:"/",SHELL:"/bin/sh",TERM:"xterm"}})',
  ],
  ['paths of a drawing', `a({${'abcdefghijklmn'.split('').map((name) => `${name}:"m"`)},PATH:"M0 0:/x"})`],
  ['names alone', Object.keys(variables).join(',')],
  ['values that are worked out', `a({${Object.keys(variables).map((name) => `"${name}":f("/a:/b")`)}})`],
])('is none: %s', (_, text) => {
  expect(machineEnvironmentsIn(text)).toEqual([])
})
