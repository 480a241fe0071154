// What reading looks at for every character of a script, as a WebAssembly module: it runs at its full speed from the first
// character on, where a fresh thread needs megabytes to get as fast. `npm run generate` compiles it.
export { isOdd, moduleAt, scan } from './script'
export { widen } from './text'
export { find } from './words'

/** Where memory is free. */
export function free(): usize {
  return __heap_base
}
