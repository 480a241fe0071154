/**
 * What a script does with a text that names a file: puts it behind a base path that is not known, asks for it as it is, or asks
 * for it behind a text that is known.
 */
export type NameUse =
  | 'behind the base'
  | 'file'
  | 'data'
  | { readonly before: string; readonly isData: boolean }

/** The uses of such texts, by file and offset. */
export type NameUses = ReadonlyMap<string, ReadonlyMap<number, NameUse>>
