const path: typeof import('node:path') = require('node:path')
const { start } = require('../start/start.cjs')

start(path.join(__dirname, '../program/beside.cjs'), 'beside')
