import { createHash, randomBytes } from 'node:crypto'
import { LessThan, type DataSource } from 'typeorm'
import type { Person } from '@gullyline/core'
import { PersonEntity, SessionEntity } from '../db/rows.ts'
import { toPerson } from './store.ts'

const HOUR_MS = 3_600_000
/** A working day: a session that nobody uses for so long ends. */
const LASTS_MS = 12 * HOUR_MS
const TOKEN_BYTES = 32
/** How long an answer of the database is believed: an account removed by a command is out after this at the latest. */
const BELIEVED_MS = 10_000

interface Known {
  readonly person: Person
  readonly expiresAt: number
  readonly believedUntil: number
}

/** Who is signed in. Sessions are in the database under a hash of their token, and for a moment in memory. */
export class Sessions {
  readonly #db: DataSource
  readonly #now: () => number
  readonly #known = new Map<string, Known>()

  constructor(db: DataSource, now: () => number = Date.now) {
    this.#db = db
    this.#now = now
  }

  /** Starts a session and gives its token. The one that was there before, if any, ends. */
  async start(person: Person, before: string | undefined): Promise<string> {
    if (before !== undefined) await this.end(before)
    const token = randomBytes(TOKEN_BYTES).toString('base64url')
    const { manager } = this.#db
    // Apart from the insert: in one transaction, the two would wait for those of another sign-in.
    await manager.delete(SessionEntity, { expiresAt: LessThan(new Date(this.#now())) })
    await manager.insert(SessionEntity, {
      tokenHash: hashOf(token),
      personId: person.id,
      expiresAt: new Date(this.#now() + LASTS_MS),
    })
    return token
  }

  /** The person a token belongs to, or undefined when its session is over or never was. Using a session prolongs it. */
  async find(token: string): Promise<Person | undefined> {
    const key = hashOf(token)
    const now = this.#now()
    const known = this.#known.get(key)
    if (known && known.believedUntil > now && known.expiresAt > now) return known.person
    this.#known.delete(key)
    return this.#read(key, now)
  }

  /** Whether the session with this hash still is one. */
  async isOpen(hash: string): Promise<boolean> {
    const session = await this.#db.manager.findOneBy(SessionEntity, { tokenHash: hash })
    return session !== null && session.expiresAt.getTime() > this.#now()
  }

  async end(token: string): Promise<void> {
    const key = hashOf(token)
    this.#known.delete(key)
    await this.#db.manager.delete(SessionEntity, { tokenHash: key })
  }

  async #read(key: string, now: number): Promise<Person | undefined> {
    const { manager } = this.#db
    const session = await manager.findOneBy(SessionEntity, { tokenHash: key })
    if (!session || session.expiresAt.getTime() <= now) return undefined
    const row = await manager.findOneBy(PersonEntity, { id: session.personId })
    if (!row) return undefined
    let expiresAt = session.expiresAt.getTime()
    if (expiresAt - now < LASTS_MS / 2) {
      expiresAt = now + LASTS_MS
      await manager.update(SessionEntity, { tokenHash: key }, { expiresAt: new Date(expiresAt) })
    }
    const person = toPerson(row)
    this.#known.set(key, { person, expiresAt, believedUntil: now + BELIEVED_MS })
    return person
  }
}

/** What a token is known by outside of the browser that has it. */
export function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}
