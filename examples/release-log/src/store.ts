import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import { type Entry, merged } from './entry.ts'

interface LogSchema extends DBSchema {
  readonly entries: { readonly key: string; readonly value: Entry }
}

const opened: { log: Promise<IDBPDatabase<LogSchema>> | null } = { log: null }

/** The browser's own storage: nothing of it leaves this browser. */
function log(): Promise<IDBPDatabase<LogSchema>> {
  opened.log ??= openDB<LogSchema>('release-log', 1, {
    upgrade: (database) => {
      database.createObjectStore('entries', { keyPath: 'id' })
    },
  })
  return opened.log
}

/** All entries that are kept, the earliest first. */
export async function allEntries(): Promise<Entry[]> {
  const entries = await (await log()).getAll('entries')
  return entries.sort((a, b) => a.when.localeCompare(b.when))
}

/** Keeps entries, all or none; the report and the record of one release become one. */
export async function keep(fresh: readonly Entry[]): Promise<void> {
  const change = (await log()).transaction('entries', 'readwrite')
  for (const entry of fresh) await change.store.put(merged(await change.store.get(entry.id), entry))
  await change.done
}

/** Forgets the entries of an address, or all. */
export async function forget(address: string | null): Promise<void> {
  const change = (await log()).transaction('entries', 'readwrite')
  for (const entry of await change.store.getAll())
    if (address === null || entry.address === address) await change.store.delete(entry.id)
  await change.done
}
