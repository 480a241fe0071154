// A stand-in for the framework's publish step, after its published layout: the real tool is no part of this corpus.
import { cpSync, mkdirSync, writeFileSync } from 'node:fs'

const out = 'bin/Release/net9.0/publish/wwwroot'
mkdirSync(`${out}/_framework`, { recursive: true })
cpSync('wwwroot', out, { recursive: true })
writeFileSync(`${out}/_framework/blazor.webassembly.js`, 'fetch("https://api.skerryline.example/v1/sailings")\n')
writeFileSync(`${out}/_framework/dotnet.js`, 'export const dotnet = {}\n')
writeFileSync(`${out}/_framework/blazor.boot.json`, '{"mainAssemblyName":"Skerry","resources":{"hash":"","assembly":{"Skerry.wasm":""}}}\n')
writeFileSync(`${out}/_framework/Skerry.wasm`, '')
