declare module 'css-tree/tokenizer' {
  /** Calls back for every token of CSS Syntax Level 3, with its type and bounds. */
  export function tokenize(source: string, onToken: (type: number, start: number, end: number) => void): void
}
