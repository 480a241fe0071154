/** The package's own directory. Compiled and bundled, this code is two directories below it. */
export const packageRoot = new URL('../../', import.meta.url)
