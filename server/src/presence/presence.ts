import type { Logger } from 'pino'
import type { DataSource, EntityManager } from 'typeorm'
import type { Present, PresenceEvent, PresentTab, VersionInfo } from '@gullyline/core'
import { transact } from '../db/transact.ts'
import { newId } from '../http/new-id.ts'
import { EventLog, writeMessages, writeToPage, type Message } from './event-log.ts'

/** One browser that listens: one connection, however many tabs it has. */
export interface Listener {
  readonly personId: string
  readonly name: string
  /** The hash of the session's token: the connection ends with it. */
  readonly session: string
  readonly tell: (told: PresenceEvent) => void
  readonly close: () => void
}

/** A browser that listens here. */
interface Connected {
  readonly id: string
  readonly listener: Listener
}

/** What whoever holds a connection does with it. */
export interface Connection {
  /** To be called every so often. False when the connection is over: the browser came back by another one, or was given up. */
  stillThere(): Promise<boolean>
  leave(): Promise<void>
}

/** Connections that one person may have: several browsers and machines, and those that nobody has found dead yet. */
const MOST_CONNECTIONS = 20
/** A browser whose server says nothing of it for so long is gone, and with it most likely that server. */
const GIVEN_UP_S = 45
/** How often is looked for what other servers tell, while somebody listens here. */
const LOOK_EVERY_MS = 250

/**
 * Who has which page open, and how to reach them. It is in the database, so that it does not matter which server a browser
 * listens to and which one takes what it says; connections are held by the server that has them.
 */
export class Presence {
  readonly #db: DataSource
  readonly #log: Pick<Logger, 'error'>
  readonly #events: EventLog
  /** By their connections. */
  readonly #here = new Map<string, Connected>()
  /** How many browsers are about to listen. */
  #coming = 0
  #begun: Promise<void> = Promise.resolve()
  #looking: NodeJS.Timeout | undefined
  #delivering: Promise<void> = Promise.resolve()
  /** How many deliveries are under way or wait. */
  #due = 0

  constructor(db: DataSource, log: Pick<Logger, 'error'>) {
    this.#db = db
    this.#log = log
    this.#events = new EventLog(db)
  }

  /** A browser begins to listen. The oldest connection of a person gives way to one too many. */
  async connect(id: string, listener: Listener): Promise<Connection> {
    // Messages are skipped only while nobody listens or is about to: of two that come at once, the first skips for both.
    if (this.#here.size === 0 && this.#coming === 0) this.#begun = this.#events.begin()
    this.#coming++
    try {
      await this.#begun
      return await this.#connect(id, listener)
    } finally {
      this.#coming--
    }
  }

  async #connect(id: string, listener: Listener): Promise<Connection> {
    const connection = newId()
    await this.#change(async (manager) => {
      const own = await manager.query<{ id: string }[]>(
        'SELECT id FROM browsers WHERE person_id = ? AND id <> ? ORDER BY came_at',
        [listener.personId, id],
      )
      const tooMany = own.slice(0, Math.max(0, own.length - MOST_CONNECTIONS + 1))
      const messages = [
        ...(await dropBrowsers(manager, [id, ...tooMany.map((one) => one.id)])),
        { close: id, unless: connection },
        ...tooMany.map((one) => ({ close: one.id })),
      ]
      const { session, personId, name } = listener
      await manager.query(
        `INSERT INTO browsers (id, connection, session, person_id, name, came_at, seen_at)
         VALUES (?, ?, ?, ?, ?, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3))`,
        [id, connection, session, personId, name],
      )
      return messages
    })
    this.#here.set(connection, { id, listener })
    this.#look()
    await this.#deliver()
    return {
      stillThere: () => this.#stillThere(connection),
      leave: () => this.#leave(connection),
    }
  }

  /** Says which tabs of a browser have which page open. False when nobody listens under this id in this session. */
  async setTabs(id: string, session: string, tabs: readonly PresentTab[]): Promise<boolean> {
    let isKnown = false
    await this.#change(async (manager) => {
      const [browser] = await manager.query<{ session: string; name: string }[]>(
        'SELECT session, name FROM browsers WHERE id = ? FOR UPDATE',
        [id],
      )
      isKnown = browser?.session === session
      if (!isKnown) return []
      const open = await manager.query<PresentTab[]>(
        'SELECT tab, page_id AS pageId FROM open_tabs WHERE browser_id = ?',
        [id],
      )
      const isIn = (list: readonly PresentTab[], { tab, pageId }: PresentTab): boolean =>
        list.some((one) => one.tab === tab && one.pageId === pageId)
      const messages: Message[] = []
      for (const { tab, pageId } of open.filter((one) => !isIn(tabs, one))) {
        await manager.query('DELETE FROM open_tabs WHERE page_id = ? AND tab = ? AND browser_id = ?', [
          pageId,
          tab,
          id,
        ])
        messages.push(left(pageId, tab))
      }
      for (const { tab, pageId } of tabs.filter((one) => !isIn(open, one))) {
        // A tab is in one browser: it may have come back by another connection before the old one was found to be dead.
        await manager.query('REPLACE INTO open_tabs (page_id, tab, browser_id) VALUES (?, ?, ?)', [
          pageId,
          tab,
          id,
        ])
        // The others are told of one, and one of the others: a coming costs as many as there are, and not their square.
        messages.push(
          { page: pageId, except: id, told: { event: 'came', data: { pageId, tab, name: browser!.name } } },
          { browser: id, peopleOf: pageId },
        )
      }
      return messages
    })
    await this.#deliver()
    return isKnown
  }

  /** Ends what listens by a session that is over, at whatever server. */
  async endSession(session: string): Promise<void> {
    await this.#change(async (manager) => {
      const browsers = await manager.query<{ id: string }[]>('SELECT id FROM browsers WHERE session = ?', [
        session,
      ])
      const gone = await dropBrowsers(
        manager,
        browsers.map(({ id }) => id),
      )
      return [...gone, { closeSession: session }]
    })
    await this.#deliver()
  }

  /** Ends every connection of this server, which stops. Browsers come back by themselves. */
  async closeAll(): Promise<void> {
    const all = [...this.#here]
    for (const [, { listener }] of all) listener.close()
    for (const [connection] of all) await this.#leave(connection)
  }

  /** The tabs that have a page open. */
  async openTabs(pageId: string): Promise<ReadonlySet<string>> {
    const rows = await this.#db.query<{ tab: string }[]>(
      `SELECT t.tab FROM open_tabs t JOIN browsers b ON b.id = t.browser_id
       WHERE t.page_id = ? AND b.seen_at > UTC_TIMESTAMP(3) - INTERVAL ${GIVEN_UP_S} SECOND`,
      [pageId],
    )
    return new Set(rows.map(({ tab }) => tab))
  }

  /** Tells everybody on a page that it was saved, and by which tab. */
  saved(pageId: string, version: VersionInfo, tab: string | null): Promise<void> {
    return this.#tell(pageId, { event: 'saved', data: { ...version, pageId, tab } })
  }

  /** Tells everybody on a page that it went to the bin, or came back. */
  binned(pageId: string, event: 'deleted' | 'restored', by: string): Promise<void> {
    return this.#tell(pageId, { event, data: { pageId, by } })
  }

  /** What is told was done already: that it can't be told must not make it look undone. */
  async #tell(pageId: string, told: PresenceEvent): Promise<void> {
    try {
      await writeToPage(this.#db, pageId, told)
      await this.#deliver()
    } catch (error) {
      this.#log.error({ err: error }, 'People on a page could not be told of what happened')
    }
  }

  #change(act: (manager: EntityManager) => Promise<readonly Message[]>): Promise<void> {
    return transact(this.#db, async (manager) => writeMessages(manager, await act(manager)))
  }

  async #stillThere(connection: string): Promise<boolean> {
    const { affectedRows } = await this.#db.query<{ affectedRows: number }>(
      'UPDATE browsers SET seen_at = UTC_TIMESTAMP(3) WHERE connection = ?',
      [connection],
    )
    await this.#giveUp()
    return affectedRows > 0
  }

  async #leave(connection: string): Promise<void> {
    const left = this.#here.get(connection)
    if (!left) return
    this.#here.delete(connection)
    this.#look()
    await this.#change(async (manager) => {
      const own = await manager.query<unknown[]>('SELECT 1 FROM browsers WHERE connection = ? FOR UPDATE', [
        connection,
      ])
      return own.length === 0 ? [] : dropBrowsers(manager, [left.id])
    })
    await this.#deliver()
  }

  /** Takes out browsers of servers that are gone. */
  async #giveUp(): Promise<void> {
    const dead = await this.#db.query<{ id: string }[]>(
      `SELECT id FROM browsers WHERE seen_at < UTC_TIMESTAMP(3) - INTERVAL ${GIVEN_UP_S} SECOND`,
    )
    if (dead.length > 0)
      await this.#change((manager) =>
        dropBrowsers(
          manager,
          dead.map(({ id }) => id),
        ),
      )
    await this.#events.purge()
  }

  /** Looks for what other servers tell while there is somebody to be told. */
  #look(): void {
    if (this.#here.size === 0) {
      clearInterval(this.#looking)
      this.#looking = undefined
    } else
      this.#looking ??= setInterval(() => {
        // A database that is slow is not asked faster than it answers.
        if (this.#due === 0) void this.#deliver().catch(() => undefined)
      }, LOOK_EVERY_MS).unref()
  }

  /** One after another, so that everybody is told in the order in which things happened. */
  #deliver(): Promise<void> {
    this.#due++
    const delivered = this.#delivering.then(() => this.#deliverNext()).finally(() => this.#due--)
    this.#delivering = delivered.catch(() => undefined)
    return delivered
  }

  async #deliverNext(): Promise<void> {
    if (this.#here.size === 0) return
    const messages = await this.#events.next()
    const pages = messages.flatMap((message) => ('page' in message ? [message.page] : []))
    const onPage = await this.#browsersOn(pages)
    for (const message of messages) {
      for (const { id, listener } of this.#here.values()) {
        if ('page' in message) {
          if (id !== message.except && onPage.has(`${id} ${message.page}`)) listener.tell(message.told)
        } else if ('browser' in message) {
          if (id === message.browser) await this.#tellPeople(listener, message.peopleOf)
        }
      }
      for (const [connection, { id, listener }] of this.#here) {
        const isOver =
          ('close' in message && id === message.close && connection !== message.unless) ||
          ('closeSession' in message && listener.session === message.closeSession)
        if (!isOver) continue
        this.#here.delete(connection)
        listener.close()
      }
      this.#look()
    }
  }

  /** The browsers that have one of some pages open, as "browser page". */
  async #browsersOn(pages: readonly string[]): Promise<ReadonlySet<string>> {
    if (pages.length === 0) return new Set()
    const rows = await this.#db.query<{ browser: string; page: string }[]>(
      'SELECT browser_id AS browser, page_id AS page FROM open_tabs WHERE page_id IN (?)',
      [[...new Set(pages)]],
    )
    return new Set(rows.map(({ browser, page }) => `${browser} ${page}`))
  }

  async #tellPeople(listener: Listener, pageId: string): Promise<void> {
    const people = await this.#db.query<Present[]>(
      `SELECT t.tab, b.name FROM open_tabs t JOIN browsers b ON b.id = t.browser_id
       WHERE t.page_id = ? ORDER BY b.came_at, t.tab`,
      [pageId],
    )
    listener.tell({
      event: 'people',
      data: { pageId, people: people.map(({ tab, name }) => ({ tab, name })) },
    })
  }
}

/** Takes browsers out, with their tabs; returns what is to be told of it. */
async function dropBrowsers(manager: EntityManager, ids: readonly string[]): Promise<Message[]> {
  if (ids.length === 0) return []
  const tabs = await manager.query<PresentTab[]>(
    'SELECT tab, page_id AS pageId FROM open_tabs WHERE browser_id IN (?)',
    [ids],
  )
  await manager.query('DELETE FROM browsers WHERE id IN (?)', [ids])
  return tabs.map(({ tab, pageId }) => left(pageId, tab))
}

function left(pageId: string, tab: string): Message {
  return { page: pageId, told: { event: 'left', data: { pageId, tab } } }
}
