type Files = Readonly<Record<string, string>>
export function archiveFaultIn(core: object, folders: readonly Files[], seed: number): Promise<string | null>
export function requestFaultIn(
  respond: object,
  stage: object,
  files: Files,
  seed: number,
): Promise<string | null>
