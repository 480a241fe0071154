// Loaded before the program: notes every path that it opens or lists, and how much memory it took, in the file that
// WARDOSCOPE_TRACE names.
const fs = require('node:fs')
const { syncBuiltinESMExports } = require('node:module')

const target = process.env.WARDOSCOPE_TRACE
const append = fs.appendFileSync
const lines = []
for (const name of [
  'openSync',
  'readFileSync',
  'readdirSync',
  'opendirSync',
  'open',
  'readFile',
  'readdir',
]) {
  for (const owner of [fs, fs.promises]) {
    const real = owner[name]
    if (typeof real !== 'function') continue
    owner[name] = function (...args) {
      lines.push(`${name.startsWith('readdir') || name.startsWith('opendir') ? 'list' : 'open'} ${args[0]}`)
      return real.apply(this, args)
    }
  }
}
syncBuiltinESMExports()
process.once('exit', () => {
  lines.push(`memory ${process.resourceUsage().maxRSS}`)
  append(target, `${lines.join('\n')}\n`)
})
