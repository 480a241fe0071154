#!/usr/bin/env node
const path: typeof import('node:path') = require('node:path')
const { start } = require('../start/start.cjs')

const command = /^[a-z]+$/.exec(process.argv[2] ?? '')?.[0] ?? 'check'
start(path.join(__dirname, '../program/program.cjs'), command)
