// A stand-in for the framework's publish step, after its published layout: the real tool is no part of this corpus.
import { createHash } from 'node:crypto'
import { cpSync, mkdirSync, writeFileSync } from 'node:fs'

const out = 'bin/Release/net9.0/publish/wwwroot'
mkdirSync(`${out}/_framework`, { recursive: true })
cpSync('wwwroot', out, { recursive: true })
const runtime = Buffer.from('\0asm\x01\0\0\0')
const digest = `sha256-${createHash('sha256').update(runtime).digest('base64')}`
const boot = {
  mainAssemblyName: 'Skerry',
  resources: {
    hash: digest,
    wasmNative: { 'dotnet.native.wasm': digest },
    assembly: { 'Skerry.wasm': digest, 'System.Runtime.wasm': digest },
  },
}
const written = {
  'blazor.webassembly.js':
    'fetch("https://api.skerryline.example/v1/sailings");import(new URL("_framework/dotnet.js",document.baseURI).toString())\n',
  'dotnet.js': 'export const dotnet = {}\n',
  'blazor.boot.json': `${JSON.stringify(boot)}\n`,
  'dotnet.native.wasm': runtime,
  'Skerry.wasm': runtime,
  'System.Runtime.wasm': runtime,
}
for (const [name, content] of Object.entries(written)) writeFileSync(`${out}/_framework/${name}`, content)
