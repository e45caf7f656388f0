import { QueryFailedError, type DataSource, type EntityManager } from 'typeorm'

/** InnoDB may end one of two transactions that wait for each other, and asks to begin it again (MariaDB, error 1213). */
const DEADLOCK = 'ER_LOCK_DEADLOCK'
const MOST_TRIES = 4

/** Does work in one transaction, again when the database ended it for another's sake. `work` must touch nothing but the database. */
export async function transact<T>(db: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> {
  for (let left = MOST_TRIES; ; left--) {
    try {
      return await db.transaction(work)
    } catch (error) {
      if (left <= 1 || !isDeadlock(error)) throw error
    }
  }
}

function isDeadlock(error: unknown): boolean {
  return error instanceof QueryFailedError && (error.driverError as { code?: string }).code === DEADLOCK
}
