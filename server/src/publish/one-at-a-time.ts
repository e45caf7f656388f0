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
  const result = before.then(() => holdingLock(db, act))
  queues.set(
    db,
    result.catch(() => undefined),
  )
  return result
}

/** With a lock of the database server, which is let go of when its connection ends, however that happens. */
async function holdingLock<T>(db: Services['db'], act: () => Promise<T>): Promise<T> {
  const runner = db.createQueryRunner()
  try {
    // Names are of the whole server, which may have other databases.
    const name = "CONCAT('gullyline/', LEFT(DATABASE(), 50))"
    const [row] = (await runner.query(`SELECT GET_LOCK(${name}, ?) AS isOurs`, [PATIENCE_S])) as [
      { isOurs: number | string | null },
    ]
    if (Number(row.isOurs) !== 1)
      throw new Refused(
        'stale-publish',
        'Others keep publishing this site. Nothing was changed; publish again in a moment.',
      )
    try {
      return await act()
    } finally {
      // Where the connection is lost, so is the lock.
      await runner.query(`SELECT RELEASE_LOCK(${name})`).catch(() => undefined)
    }
  } finally {
    await runner.release()
  }
}
