import fc from 'fast-check'
import { expect, test } from 'vitest'
import { commandsOf } from './shell-command.ts'

test.each<[string, readonly (readonly string[])[]]>([
  ['vite build', [['vite', 'build']]],
  [
    'vite build | tee build.log',
    [
      ['vite', 'build'],
      ['tee', 'build.log'],
    ],
  ],
  ['vite build > log.txt', [['vite', 'build']]],
  ['vite build >log.txt 2>&1', [['vite', 'build']]],
  ['vite build 2>&1', [['vite', 'build']]],
  ['vite build 2>/dev/null', [['vite', 'build']]],
  ['vite build &> log', [['vite', 'build']]],
  ['vite build --minify 2 --base /b/', [['vite', 'build', '--minify', '2', '--base', '/b/']]],
  ["vite build --mode 'a;b' --base /b/", [['vite', 'build', '--mode', 'a;b', '--base', '/b/']]],
  ['vite build --base="/a b/" # note --base /c/', [['vite', 'build', '--base=/a b/']]],
  [
    'tsc -b&&vite build||exit 1',
    [
      ['tsc', '-b'],
      ['vite', 'build'],
      ['exit', '1'],
    ],
  ],
  ['(cd web; vite build) & wait', [['cd', 'web'], ['vite', 'build'], ['wait']]],
  [
    'vite build \\\n  --base /b/\necho done',
    [
      ['vite', 'build', '--base', '/b/'],
      ['echo', 'done'],
    ],
  ],
  [
    'vite build --base $BASE/x --outDir ${OUT:-dist}',
    [['vite', 'build', '--base', '$BASE/x', '--outDir', '${OUT:-dist}']],
  ],
  ['cp -r dist/* ../public', [['cp', '-r', 'dist/*', '../public']]],
  ['A=\'x y\' B="z" vite build', [['A=x y', 'B=z', 'vite', 'build']]],
  ['', []],
  ['# nothing', []],
  ['echo "${', []],
])('%s', (script, expected) => {
  expect(commandsOf(script)).toEqual(expected)
})

test('any text is split without an error, and no operator is left among the words of plain commands', () => {
  fc.assert(fc.property(fc.string({ maxLength: 200 }), (script) => Array.isArray(commandsOf(script))))
  const word = fc.stringMatching(/^[a-z][\w./=-]{0,12}$/)
  const operator = fc.constantFrom('&&', '||', ';', '|', '&')
  fc.assert(
    fc.property(
      fc.array(fc.array(word, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 5 }),
      operator,
      (commands, between) => {
        const script = commands.map((words) => words.join(' ')).join(` ${between} `)
        expect(commandsOf(script)).toEqual(commands)
      },
    ),
  )
})
