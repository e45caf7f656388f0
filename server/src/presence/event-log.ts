import type { DataSource, EntityManager } from 'typeorm'
import type { PresenceEvent } from '@gullyline/core'

/** What servers on one database tell each other, since a person's browser listens to one of them, and acts through any. */
export type Message =
  /** To everybody who has a page open, but for one browser. */
  | { readonly page: string; readonly except?: string; readonly told: PresenceEvent }
  /** Who is on a page, to one browser: it is looked up when it is told, so that it is never older than what was told before. */
  | { readonly browser: string; readonly peopleOf: string }
  /** A browser's connections end, but for the one that it has now. */
  | { readonly close: string; readonly unless?: string }
  | { readonly closeSession: string }

interface Row {
  readonly number: number | string
  readonly event: string
  readonly isOld: number | string
}

/**
 * Numbers are given when messages are written, and not when they can be read: one with a lower number may come later. So
 * long is waited for it.
 */
const SETTLED_S = 5
const KEPT_S = 60

/** Messages in the order in which they were written, read by each server once. */
export class EventLog {
  readonly #db: DataSource
  #floor = 0
  readonly #read = new Set<number>()

  constructor(db: DataSource) {
    this.#db = db
  }

  /** Begins with what is written from now on. */
  async begin(): Promise<void> {
    const [row] = await this.#db.query<{ number: number | string | null }[]>(
      'SELECT MAX(number) AS number FROM presence_events',
    )
    this.#floor = Number(row?.number ?? 0)
    this.#read.clear()
  }

  /** What was written since the last time. */
  async next(): Promise<Message[]> {
    const rows = await this.#db.query<Row[]>(
      `SELECT number, event, at < UTC_TIMESTAMP(3) - INTERVAL ${SETTLED_S} SECOND AS isOld FROM presence_events
       WHERE number > ? ORDER BY number`,
      [this.#floor],
    )
    const fresh = rows.filter(({ number }) => !this.#read.has(Number(number)))
    for (const { number, isOld } of rows) {
      if (Number(isOld) === 1) {
        this.#floor = Number(number)
        this.#read.delete(Number(number))
      } else this.#read.add(Number(number))
    }
    return fresh.map(({ event }) => JSON.parse(event) as Message)
  }

  /** Removes what every server has read long since. */
  async purge(): Promise<void> {
    await this.#db.query(
      `DELETE FROM presence_events WHERE at < UTC_TIMESTAMP(3) - INTERVAL ${KEPT_S} SECOND`,
    )
  }
}

export async function writeMessages(manager: EntityManager, messages: readonly Message[]): Promise<void> {
  if (messages.length === 0) return
  // By the clock of the database, which decides how old they are.
  for (const message of messages)
    await manager.query('INSERT INTO presence_events (at, event) VALUES (UTC_TIMESTAMP(3), ?)', [
      JSON.stringify(message),
    ])
}

/** Tells everybody who has a page open; writes nothing where nobody has. */
export async function writeToPage(db: DataSource, page: string, told: PresenceEvent): Promise<void> {
  await db.query(
    `INSERT INTO presence_events (at, event)
     SELECT UTC_TIMESTAMP(3), ? FROM DUAL WHERE EXISTS (SELECT 1 FROM open_tabs WHERE page_id = ?)`,
    [JSON.stringify({ page, told } satisfies Message), page],
  )
}
