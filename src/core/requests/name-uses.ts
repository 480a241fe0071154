/** What a script does with a text that names a file: puts it behind the base path, or asks for it. */
export type NameUse = 'behind the base' | 'file' | 'data'

/** The uses of such texts, by file and offset. */
export type NameUses = ReadonlyMap<string, ReadonlyMap<number, NameUse>>
