/** A compiler of webpack 5 or Rspack, as far as the plugin needs it. */
export interface Compiler {
  readonly context: string
  readonly outputPath: string
  readonly watchMode?: boolean
  readonly options: {
    readonly mode?: string | undefined
    readonly target?: unknown
    readonly output: { readonly publicPath?: unknown }
  }
  readonly hooks: {
    readonly done: {
      tapPromise(
        options: { readonly name: string; readonly stage: number },
        look: (stats: Stats) => Promise<void>,
      ): void
    }
  }
  getInfrastructureLogger(name: string): { info(...texts: unknown[]): void; warn(...texts: unknown[]): void }
}

/** What a compiler tells of one run. */
export interface Stats {
  hasErrors(): boolean
  readonly compilation: {
    readonly errors: { push(error: Error): unknown }
    readonly warnings: { push(error: Error): unknown }
    getAssets(): Iterable<{ readonly name: string }>
  }
}
