import { LockHeld, withNamedLock } from '../db/named-lock.ts'
import { Refused } from '../http/errors.ts'
import type { Services } from '../services.ts'

/** How long a publish waits for those before it. */
const PATIENCE_S = 120

/** Publishes that wait in this process, each for the one before it, so that one connection alone waits for other processes. */
const queues = new WeakMap<Services['db'], Promise<unknown>>()

/**
 * Runs an act while no other that is run so is under way, in this or in any other process on the same database. Refuses
 * when those before it take too long.
 */
export function alone<T>({ db }: Pick<Services, 'db'>, act: () => Promise<T>): Promise<T> {
  const before = queues.get(db) ?? Promise.resolve()
  const result = before.then(() => withNamedLock(db, { name: 'publish', patienceS: PATIENCE_S }, act))
  queues.set(
    db,
    result.catch(() => undefined),
  )
  return result.catch((error: unknown) => {
    if (!(error instanceof LockHeld)) throw error
    throw new Refused(
      'stale-publish',
      'Others keep publishing this site. Nothing was changed; publish again in a moment.',
    )
  })
}
