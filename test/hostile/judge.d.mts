export function faultIn(
  core: typeof import('../../src/core/index.ts'),
  files: Readonly<Record<string, string>>,
): Promise<string | null>
