/** The package's own directory. Compiled and bundled, this code lies two directories below it. */
export const packageRoot = new URL('../../', import.meta.url)
