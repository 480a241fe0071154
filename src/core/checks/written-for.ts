/** A setting as `key = "value"`, in the syntax of the file it goes into: TOML as it is, YAML, or JSON. */
export function writtenFor(file: string, setting: string): string {
  const [, key, value] = /^(\w+) = (".*")$/.exec(setting) ?? []
  if (key === undefined || value === undefined) return setting
  if (/\.ya?ml$/.test(file)) return `${key}: ${value}`
  return file.endsWith('.json') ? `"${key}": ${value},` : setting
}
