export const folders: readonly Readonly<Record<string, string>>[]
