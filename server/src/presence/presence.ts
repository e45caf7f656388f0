import type { PresenceEvent, PresentTab, VersionInfo } from '@gullyline/core'

/** One browser that listens: one connection, however many tabs it has. */
export interface Listener {
  readonly personId: string
  readonly name: string
  /** The hash of the session's token: the connection ends with it. */
  readonly session: string
  readonly tell: (told: PresenceEvent) => void
  readonly close: () => void
}

interface Browser extends Listener {
  readonly tabs: Map<string, string>
}

interface Tab {
  readonly browser: Browser
  readonly pageId: string
}

/** Connections that one person may have: several browsers and machines, and those that nobody has found dead yet. */
const MOST_CONNECTIONS = 20

/** Who has which page open, and how to reach them. In memory: who is there is known again as soon as they come back. */
export class Presence {
  readonly #browsers = new Map<string, Browser>()
  readonly #pages = new Map<string, Map<string, Tab>>()

  /** A browser begins to listen; gives how to leave. The oldest connection of a person gives way to one too many. */
  connect(id: string, listener: Listener): () => void {
    this.#browsers.get(id)?.close()
    this.#drop(id)
    const own = [...this.#browsers].filter(([, one]) => one.personId === listener.personId)
    if (own.length >= MOST_CONNECTIONS) {
      const [oldest, browser] = own[0]!
      browser.close()
      this.#drop(oldest)
    }
    const browser: Browser = { ...listener, tabs: new Map() }
    this.#browsers.set(id, browser)
    return () => {
      // The same browser may have come back by another connection before this one was found to be dead.
      if (this.#browsers.get(id) === browser) this.#drop(id)
    }
  }

  /** Says which tabs of a browser have which page open. False when nobody listens under this id in this session. */
  setTabs(id: string, session: string, tabs: readonly PresentTab[]): boolean {
    const browser = this.#browsers.get(id)
    if (browser?.session !== session) return false
    const wanted = new Map(tabs.map(({ tab, pageId }) => [tab, pageId]))
    for (const [tab, pageId] of browser.tabs)
      if (wanted.get(tab) !== pageId) this.#leave(browser, tab, pageId)
    for (const [tab, pageId] of wanted) if (!browser.tabs.has(tab)) this.#come(browser, tab, pageId)
    return true
  }

  /** Ends what listens by a session that is over. */
  endSession(session: string): void {
    for (const [id, browser] of this.#browsers) {
      if (browser.session !== session) continue
      browser.close()
      this.#drop(id)
    }
  }

  /** Ends every connection: the server stops. Browsers come back by themselves. */
  closeAll(): void {
    for (const { close } of this.#browsers.values()) close()
  }

  isOpen(pageId: string, tab: string): boolean {
    return this.#pages.get(pageId)?.has(tab) ?? false
  }

  /** Tells everybody on a page that it was saved, and by which tab. */
  saved(pageId: string, version: VersionInfo, tab: string | null): void {
    this.#tellAll(pageId, { event: 'saved', data: { ...version, pageId, tab } })
  }

  /** Tells everybody on a page that it went to the bin, or came back. */
  binned(pageId: string, event: 'deleted' | 'restored', by: string): void {
    this.#tellAll(pageId, { event, data: { pageId, by } })
  }

  #drop(id: string): void {
    const browser = this.#browsers.get(id)
    if (!browser) return
    this.#browsers.delete(id)
    for (const [tab, pageId] of browser.tabs) this.#leave(browser, tab, pageId)
  }

  /** The others are told of one, and one of the others: what a coming costs grows with the people, and not with their square. */
  #come(browser: Browser, tab: string, pageId: string): void {
    const there = this.#pages.get(pageId) ?? new Map<string, Tab>()
    this.#pages.set(pageId, there)
    const before = there.get(tab)
    if (before) before.browser.tabs.delete(tab)
    browser.tabs.set(tab, pageId)
    there.set(tab, { browser, pageId })
    const { name } = browser
    this.#tellAll(pageId, { event: 'came', data: { pageId, tab, name } }, browser)
    const people = [...there].map(([one, { browser: other }]) => ({ tab: one, name: other.name }))
    browser.tell({ event: 'people', data: { pageId, people } })
  }

  #leave(browser: Browser, tab: string, pageId: string): void {
    browser.tabs.delete(tab)
    const there = this.#pages.get(pageId)
    if (there?.get(tab)?.browser !== browser) return
    there.delete(tab)
    if (there.size === 0) this.#pages.delete(pageId)
    this.#tellAll(pageId, { event: 'left', data: { pageId, tab } })
  }

  /** Each browser once, however many of its tabs have the page open. */
  #tellAll(pageId: string, told: PresenceEvent, except?: Browser): void {
    const browsers = new Set([...(this.#pages.get(pageId)?.values() ?? [])].map(({ browser }) => browser))
    for (const browser of browsers) if (browser !== except) browser.tell(told)
  }
}
