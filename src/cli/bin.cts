#!/usr/bin/env node
const fs: typeof import('node:fs') = require('node:fs')
const path: typeof import('node:path') = require('node:path')
const { start } = require('../start/start.cjs')

const commands = ['check', 'survey', 'rehearse', 'reach', 'compare', 'waive', 'explain', 'demo']
const [first, ...more] = process.argv.slice(2)

/** The command that is run; null for what ends at once, of which nothing is worth keeping. */
function commandOf(): string | null {
  if ([first, ...more].some((word) => word === '--help' || word === '-h' || word === '--version')) return null
  if (first === undefined || first.startsWith('-')) return 'check'
  if (commands.includes(first)) return first
  return fs.existsSync(first) ? 'check' : null
}

start(path.join(__dirname, '../program/program.cjs'), commandOf())
