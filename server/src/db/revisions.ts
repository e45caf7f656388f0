/**
 * What tells whether something changed since it was read: a name with a value that is another one after each change. The
 * values are in the database, written with what they tell of, so that an answer which any process keeps under its
 * revision is never an old one.
 */
import { randomBytes } from 'node:crypto'
import type { DataSource, EntityManager } from 'typeorm'

/** What has a revision: accounts and sessions; of each site its pages; its parts; and everything else that is told of the site. */
export type RevisionName = 'people' | `${string}/${'pages' | 'parts' | 'site'}`

/** Revisions as they were at one moment, by their names. */
export type KnownRevisions = ReadonlyMap<string, string>

/** As many as never come again. */
const VALUE_BYTES = 12

export class Revisions {
  readonly #db: DataSource
  #next: Promise<KnownRevisions> | undefined
  #running: Promise<unknown> = Promise.resolve()

  constructor(db: DataSource) {
    this.#db = db
  }

  /**
   * Returns all revisions as they are now. A caller that comes while a query is under way gets the answer of the next one,
   * with all others that came meanwhile: there is never more than one query at a time.
   */
  now(): Promise<KnownRevisions> {
    this.#next ??= this.#running.then(() => {
      // From here on it is too late to join: what is written now may be missing in the answer.
      this.#next = undefined
      const answer = this.#read()
      this.#running = answer.catch(() => undefined)
      return answer
    })
    return this.#next
  }

  async #read(): Promise<KnownRevisions> {
    const rows = await this.#db.query<{ name: string; value: string }[]>('SELECT name, value FROM revisions')
    return new Map(rows.map(({ name, value }) => [name, value]))
  }
}

/**
 * Gives names another revision. It must be the last thing that a transaction does: then nobody who waits for the row has
 * anything that this transaction waits for.
 */
export async function renew(manager: EntityManager, names: readonly RevisionName[]): Promise<void> {
  if (names.length === 0) return
  // In one order everywhere, for the same reason.
  const rows = names.toSorted().map((name) => [name, randomBytes(VALUE_BYTES).toString('hex'), 1])
  await manager.query(
    `INSERT INTO revisions (name, value, number) VALUES ?
     ON DUPLICATE KEY UPDATE value = VALUES(value), number = number + 1`,
    [rows],
  )
}
