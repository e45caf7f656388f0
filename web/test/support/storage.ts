import type { JournalStorage } from '../../src/editor/session/journal.ts'

/** A browser's storage, with room for a number of entries. */
export function someStorage(room = Infinity): JournalStorage {
  const entries = new Map<string, string>()
  return {
    getItem: (key) => entries.get(key) ?? null,
    setItem: (key, value) => {
      if (entries.size >= room && !entries.has(key)) throw new Error('QuotaExceededError')
      entries.set(key, value)
    },
    removeItem: (key) => void entries.delete(key),
    key: (index) => [...entries.keys()][index] ?? null,
    get length() {
      return entries.size
    },
  }
}
