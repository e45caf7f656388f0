import { newId } from './new-id.ts'

const KEY = 'gullyline.tab'

let claimed: Promise<string> | undefined
let known: string | undefined

/**
 * The id of this tab. It stays through a reload, and is held as a lock as long as the tab is open, so that others can
 * tell a journal whose tab has died from one that is in use, and a duplicated tab gets an id of its own.
 */
export function claimTab(): Promise<string> {
  return (claimed ??= claim())
}

/** The id of this tab, when it is known already. */
export function claimedTab(): string | undefined {
  return known
}

async function claim(): Promise<string> {
  const before = sessionStorage.getItem(KEY)
  const id = before !== null && (await hold(before)) ? before : newId()
  if (id !== before) await hold(id)
  sessionStorage.setItem(KEY, id)
  known = id
  return id
}

/** When a tab is loaded again, its old document lets go of the lock only after the new one has begun. */
const LETS_GO_MS = 1_000

/** Takes the lock of a tab for as long as this document lives; false when another tab has it. */
function hold(id: string): Promise<boolean> {
  return new Promise((resolve) => {
    navigator.locks
      .request(lockOf(id), { signal: AbortSignal.timeout(LETS_GO_MS) }, () => {
        resolve(true)
        return new Promise(() => undefined)
      })
      .catch(() => resolve(false))
  })
}

/** Which tabs of this browser are open. */
export async function openTabs(): Promise<(tab: string) => boolean> {
  const { held = [] } = await navigator.locks.query()
  const names = new Set(held.map((lock) => lock.name))
  return (tab) => names.has(lockOf(tab))
}

function lockOf(id: string): string {
  return `${KEY}.${id}`
}
