#!/usr/bin/env node
import { main } from './main.ts'

process.exitCode = await main(process.argv.slice(2), { out: process.stdout, err: process.stderr })
