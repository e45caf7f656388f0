import { createHash } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'
import { transact } from '../db/transact.ts'

const MINUTE_MS = 60_000
/** OWASP Authentication Cheat Sheet, "Account Lockout": few tries in an observation window. The numbers are chosen by us. */
const WINDOW_MS = 15 * MINUTE_MS
/** Wrong passwords for one account from one address: then that address waits for the rest of the window. */
const MOST_FROM_ADDRESS = 5
/** Wrong passwords from one address, for whatever accounts. */
const MOST_OF_ADDRESS = 30
/**
 * Wrong passwords for one account from all addresses together: then everybody waits, and only for a moment. Strangers can
 * slow a person's sign-in down, and not keep it away.
 */
const MOST_FOR_ACCOUNT = 30
const ACCOUNT_WAIT_MS = MINUTE_MS
/** The number of the row that a try locks while it counts those before it. */
const TURN = 1
/** So that made-up logins and addresses can't fill the disk. */
const MOST_ROWS = 100_000

/** Counted as wrong from its first moment: of many tries at once, on whatever servers, none gets past a limit. */
export interface Try {
  /** Minutes until another try is taken, rounded up; 0 when this one is taken. One that is not taken does not count. */
  readonly minutesToWait: number
  /**
   * After a right password: this account may be tried from this address as if nothing had been, and this try counts for
   * nobody. Wrong ones for other accounts from there, and for this one from elsewhere, still do.
   */
  forget(): Promise<void>
}

interface Limit {
  readonly name: string
  readonly most: number
  readonly ms: number
}

/** Counts wrong passwords, by account and by address, whether or not there is such an account; in the database, for all servers. */
export class Tries {
  readonly #db: DataSource
  readonly #now: () => number
  #purgedAt = 0

  constructor(db: DataSource, now: () => number = Date.now) {
    this.#db = db
    this.#now = now
  }

  /** Counts a try. `account` is an id, or a login nobody has. */
  async begin(account: string, address: string): Promise<Try> {
    const now = this.#now()
    const pair = nameOf(`${account} from ${address}`)
    const limits: readonly Limit[] = [
      { name: pair, most: MOST_FROM_ADDRESS, ms: WINDOW_MS },
      { name: nameOf(`address ${address}`), most: MOST_OF_ADDRESS, ms: WINDOW_MS },
      { name: nameOf(`account ${account}`), most: MOST_FOR_ACCOUNT, ms: ACCOUNT_WAIT_MS },
    ]
    await this.#purge(now)
    return transact(this.#db, async (manager): Promise<Try> => {
      // One after another: what is counted is all that came before.
      await manager.query('SELECT 1 FROM wrong_tries WHERE number = ? FOR UPDATE', [TURN])
      let wait = 0
      for (const limit of limits) wait = Math.max(wait, await waitOf(manager, limit, now))
      const own = wait > 0 ? [] : await insertTry(manager, limits, now)
      return {
        minutesToWait: Math.ceil(wait / MINUTE_MS),
        forget: () => this.#remove('name = ? OR number IN (?)', pair, [0, ...own]),
      }
    })
  }

  async #remove(which: string, ...values: readonly unknown[]): Promise<void> {
    await transact(this.#db, (manager) =>
      manager.query(`DELETE FROM wrong_tries WHERE ${which}`, [...values]),
    )
  }

  /** Removes what no longer counts, once a minute. */
  async #purge(now: number): Promise<void> {
    if (now - this.#purgedAt < MINUTE_MS) return
    this.#purgedAt = now
    await this.#remove('tried_at <= ?', new Date(now - WINDOW_MS))
  }
}

/** How long a try has to wait, in ms, for those before it. */
async function waitOf(manager: EntityManager, { name, most, ms }: Limit, now: number): Promise<number> {
  const before = await manager.query<{ tried_at: Date }[]>(
    'SELECT tried_at FROM wrong_tries WHERE name = ? AND tried_at > ? ORDER BY number DESC LIMIT ?',
    [name, new Date(now - WINDOW_MS), most],
  )
  if (before.length < most) return 0
  // From the first of those that count, so that waiting ends however often somebody tries meanwhile.
  const since = ms === WINDOW_MS ? before.at(-1)! : before[0]!
  return Math.max(0, since.tried_at.getTime() + ms - now)
}

/** Returns the numbers of the rows, which count up. */
async function insertTry(manager: EntityManager, limits: readonly Limit[], now: number): Promise<number[]> {
  const numbers: number[] = []
  for (const { name } of limits) {
    const { insertId } = await manager.query<{ insertId: number | bigint }>(
      'INSERT INTO wrong_tries (name, tried_at) VALUES (?, ?)',
      [name, new Date(now)],
    )
    numbers.push(Number(insertId))
  }
  await manager.query('DELETE FROM wrong_tries WHERE number < ? AND number > ?', [
    numbers[0]! - MOST_ROWS,
    TURN,
  ])
  return numbers
}

/** Logins and addresses are of any length, and nobody reads them in the table. */
function nameOf(what: string): string {
  return createHash('sha256').update(what).digest('hex')
}
