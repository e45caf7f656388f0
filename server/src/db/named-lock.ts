import type { DataSource } from 'typeorm'

/** Thrown when another process holds a lock for longer than the caller waits. */
export class LockHeld extends Error {}

interface NamedLock {
  /** What is done under it, such as "publish". */
  readonly name: string
  readonly patienceS: number
}

/**
 * Runs an act under a lock of the database server, which only one process has at a time, and which is let go of when its
 * connection ends, however that happens. Throws `LockHeld` when others hold it too long.
 */
export async function withNamedLock<T>(
  db: DataSource,
  { name, patienceS }: NamedLock,
  act: () => Promise<T>,
): Promise<T> {
  const runner = db.createQueryRunner()
  try {
    // Names are of the whole server, which may have other databases.
    const lock = "CONCAT('gullyline/', ?, '/', LEFT(DATABASE(), 40))"
    const [row] = (await runner.query(`SELECT GET_LOCK(${lock}, ?) AS isOurs`, [name, patienceS])) as [
      { isOurs: number | string | null },
    ]
    if (Number(row.isOurs) !== 1) throw new LockHeld(`Another process holds the lock “${name}”.`)
    try {
      return await act()
    } finally {
      // Where the connection is lost, so is the lock.
      await runner.query(`SELECT RELEASE_LOCK(${lock})`, [name]).catch(() => undefined)
    }
  } finally {
    await runner.release()
  }
}
