/** The directory with the projects `vite` and `webpack`, each built into its `dist`; made when it is not there. */
export function builtLibraries(): string
