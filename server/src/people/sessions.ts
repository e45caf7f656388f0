import { createHash, randomBytes } from 'node:crypto'
import { LessThan, type DataSource } from 'typeorm'
import type { OpenSession, Person } from '@gullyline/core'
import { PersonEntity, SessionEntity, SitePersonEntity, type SessionRow } from '../db/rows.ts'
import { renew, type KnownRevisions } from '../db/revisions.ts'
import { transact } from '../db/transact.ts'
import { toPerson } from './store.ts'

const HOUR_MS = 3_600_000
/** A working day: a session that nobody uses for so long ends (NIST SP 800-63B-4, 2.2.3, "Reauthentication"). */
const LASTS_MS = 12 * HOUR_MS
/** However much it is used, a session ends after 30 days (the same section, for the first assurance level). */
const LONGEST_MS = 30 * 24 * HOUR_MS
const TOKEN_BYTES = 32
/** After this time a session is read again even if its revision is the same, so that its use is recorded. */
const KNOWN_MS = 10_000
/** The first characters of a session's hash name it on the screen: enough to tell it from others, and no way in. */
const ID_LENGTH = 16
/** Sessions that are known without asking; more would only hold memory. */
const MOST_KNOWN = 10_000

/** Whose session it is, and where this person works. */
export interface SessionOwner {
  readonly person: Person
  /** The ids of sites. */
  readonly siteIds: ReadonlySet<string>
}

interface Known extends SessionOwner {
  readonly expiresAt: number
  readonly until: number
  /** The revision of accounts and sessions that it was read at. */
  readonly revision: string
}

/**
 * Who is signed in. Sessions are in the database under a hash of their token, and in memory while nothing of accounts and
 * sessions changes: one that any server ends is over for all of them at once.
 */
export class Sessions {
  readonly #db: DataSource
  readonly #now: () => number
  readonly #known = new Map<string, Known>()

  constructor(db: DataSource, now: () => number = Date.now) {
    this.#db = db
    this.#now = now
  }

  /** Starts a session and gives its token. The one that was there before, if any, ends. */
  async start(person: Person, before: string | undefined, device = 'Unknown browser'): Promise<string> {
    if (before !== undefined) await this.end(before)
    const token = randomBytes(TOKEN_BYTES).toString('base64url')
    const { manager } = this.#db
    const now = this.#now()
    // Apart from the insert: in one transaction, the two would wait for those of another sign-in.
    await manager.delete(SessionEntity, { expiresAt: LessThan(new Date(now)) })
    await manager.insert(SessionEntity, {
      tokenHash: hashOf(token),
      personId: person.id,
      startedAt: new Date(now),
      usedAt: new Date(now),
      expiresAt: new Date(now + LASTS_MS),
      device: device.slice(0, 100),
    })
    return token
  }

  /**
   * Returns whom a token belongs to, or undefined when its session is over or never was. Using a session prolongs it.
   * `revisions` are those of the moment.
   */
  async find(token: string, revisions: KnownRevisions): Promise<SessionOwner | undefined> {
    const key = hashOf(token)
    const now = this.#now()
    const revision = revisions.get('people') ?? ''
    const known = this.#known.get(key)
    if (known?.revision === revision && known.until > now && known.expiresAt > now) return known
    this.#known.delete(key)
    return this.#read(key, now, revision)
  }

  /** Whether the session with this hash still is one. */
  async isOpen(hash: string): Promise<boolean> {
    const session = await this.#db.manager.findOneBy(SessionEntity, { tokenHash: hash })
    return session !== null && session.expiresAt.getTime() > this.#now()
  }

  async end(token: string): Promise<void> {
    await this.#end(hashOf(token))
  }

  /** Where a person is signed in, last used first. `own` is the hash of the session that asks. */
  async list(personId: string, own: string): Promise<OpenSession[]> {
    const rows = await this.#db.manager.find(SessionEntity, {
      where: { personId },
      order: { usedAt: 'DESC' },
    })
    return rows
      .filter((row) => row.expiresAt.getTime() > this.#now())
      .map((row) => ({
        id: idOf(row),
        device: row.device,
        startedAt: row.startedAt.toISOString(),
        usedAt: row.usedAt.toISOString(),
        isThis: row.tokenHash === own,
      }))
  }

  /** Ends one session of a person, and gives its hash; undefined when the person has no such one. */
  async endOf(personId: string, id: string): Promise<string | undefined> {
    const rows = await this.#db.manager.find(SessionEntity, { where: { personId } })
    const row = rows.find((one) => idOf(one) === id)
    if (!row) return undefined
    await this.#end(row.tokenHash)
    return row.tokenHash
  }

  #end(tokenHash: string): Promise<void> {
    return transact(this.#db, async (manager) => {
      await manager.delete(SessionEntity, { tokenHash })
      await renew(manager, ['people'])
    })
  }

  async #read(key: string, now: number, revision: string): Promise<SessionOwner | undefined> {
    const { manager } = this.#db
    const session = await manager.findOneBy(SessionEntity, { tokenHash: key })
    if (!session || session.expiresAt.getTime() <= now) return undefined
    const row = await manager.findOneBy(PersonEntity, { id: session.personId })
    if (!row) return undefined
    let expiresAt = session.expiresAt.getTime()
    const latest = session.startedAt.getTime() + LONGEST_MS
    if (expiresAt - now < LASTS_MS / 2 && expiresAt < latest) {
      expiresAt = Math.min(now + LASTS_MS, latest)
      await manager.update(SessionEntity, { tokenHash: key }, { expiresAt: new Date(expiresAt) })
    }
    if (now - session.usedAt.getTime() > HOUR_MS)
      await manager.update(SessionEntity, { tokenHash: key }, { usedAt: new Date(now) })
    const places = await manager.findBy(SitePersonEntity, { personId: row.id })
    const siteIds = new Set(places.map(({ siteId }) => siteId))
    const owner = { person: toPerson(row), siteIds }
    if (this.#known.size >= MOST_KNOWN) this.#known.clear()
    this.#known.set(key, { ...owner, expiresAt, until: now + KNOWN_MS, revision })
    return owner
  }
}

function idOf({ tokenHash }: Pick<SessionRow, 'tokenHash'>): string {
  return tokenHash.slice(0, ID_LENGTH)
}

/** What a token is known by outside of the browser that has it. */
export function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}
