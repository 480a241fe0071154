/** What a table has under a name that comes from outside: `constructor` and the like are in every object, and in no table. */
export function own<T>(table: Readonly<Record<string, T>>, name: string): T | undefined {
  return Object.hasOwn(table, name) ? table[name] : undefined
}
