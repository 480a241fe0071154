export function random(seed: number): () => number
export function mutated(
  folders: readonly Readonly<Record<string, string>>[],
  seed: number,
): Record<string, string>
export function shrunk(
  files: Readonly<Record<string, string>>,
  fails: (files: Readonly<Record<string, string>>) => Promise<boolean>,
): Promise<Record<string, string>>
