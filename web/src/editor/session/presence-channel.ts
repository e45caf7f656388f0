/**
 * One connection to the server for all tabs of a browser, since browsers open six to a server and no more: the tab that
 * holds a lock listens, and passes on what it hears. When it is closed another takes over.
 */
import type { PresenceEvent, PresentTab } from '@gullyline/core'
import { newId } from './new-id.ts'
import { NewestSender } from './newest-sender.ts'
import { openTabs } from './tab.ts'

/** What is heard of a page. */
export type Heard =
  | PresenceEvent
  /** The connection is lost: nobody knows who is there. */
  | { readonly event: 'lost'; readonly data: { readonly pageId: string } }

const EVENTS = ['people', 'came', 'left', 'saved', 'deleted', 'restored'] as const

/** What tabs say to each other. */
type Message =
  | { readonly type: 'here'; readonly own: PresentTab }
  | { readonly type: 'gone'; readonly tab: string }
  /** The tab that listens asks who is there. */
  | { readonly type: 'who' }
  | { readonly type: 'heard'; readonly heard: Heard }

const NAME = 'gullyline.presence'
/** So often the tab that listens looks whether the others still live. */
const LOOK_MS = 10_000

/** Takes part with this tab. `hear` gets what is told of its page; gives how to leave. */
export function joinPresence(own: PresentTab, hear: (heard: Heard) => void): () => void {
  const channel = new BroadcastChannel(NAME)
  const tabs = new Map<string, string>()
  let lead: Lead | undefined
  const take = (heard: Heard): void => {
    if (heard.data.pageId === own.pageId) hear(heard)
  }
  channel.onmessage = ({ data }: MessageEvent<Message>) => {
    if (data.type === 'heard') take(data.heard)
    else if (data.type === 'who') channel.postMessage({ type: 'here', own } satisfies Message)
    else if (data.type === 'here') lead?.add(data.own)
    else lead?.remove(data.tab)
  }
  const leaving = new AbortController()
  navigator.locks
    .request(NAME, { signal: leaving.signal }, () => {
      lead = new Lead(own, tabs, (heard) => {
        take(heard)
        channel.postMessage({ type: 'heard', heard } satisfies Message)
      })
      channel.postMessage({ type: 'who' } satisfies Message)
      return new Promise<void>((resolve) => leaving.signal.addEventListener('abort', () => resolve()))
    })
    // Left before the lock was had.
    .catch(() => undefined)
  channel.postMessage({ type: 'here', own } satisfies Message)
  let hasLeft = false
  const leave = (): void => {
    if (hasLeft) return
    hasLeft = true
    channel.postMessage({ type: 'gone', tab: own.tab } satisfies Message)
    lead?.stop()
    leaving.abort()
    channel.close()
  }
  window.addEventListener('pagehide', leave)
  return () => {
    window.removeEventListener('pagehide', leave)
    leave()
  }
}

/** The tab that listens for all of them. */
class Lead {
  readonly #own: PresentTab
  readonly #tabs: Map<string, string>
  readonly #path = `/api/presence/${newId()}`
  readonly #source: EventSource
  readonly #looking: ReturnType<typeof setInterval>
  readonly #list = new NewestSender(() => this.#put())

  constructor(own: PresentTab, tabs: Map<string, string>, hear: (heard: Heard) => void) {
    this.#own = own
    this.#tabs = tabs
    tabs.set(own.tab, own.pageId)
    this.#source = new EventSource(this.#path)
    this.#source.addEventListener('connected', () => void this.#list.changed())
    this.#source.addEventListener('error', () => {
      for (const pageId of new Set(tabs.values())) hear({ event: 'lost', data: { pageId } })
    })
    for (const event of EVENTS)
      this.#source.addEventListener(event, ({ data }: MessageEvent<string>) =>
        hear({ event, data: JSON.parse(data) as never }),
      )
    this.#looking = setInterval(() => void this.#look(), LOOK_MS)
  }

  add({ tab, pageId }: PresentTab): void {
    if (this.#tabs.get(tab) === pageId) return
    this.#tabs.set(tab, pageId)
    void this.#list.changed()
  }

  remove(tab: string): void {
    if (this.#tabs.delete(tab)) void this.#list.changed()
  }

  stop(): void {
    clearInterval(this.#looking)
    this.#source.close()
  }

  /** Tells the server which tabs there are. */
  async #put(): Promise<void> {
    const tabs = [...this.#tabs].map(([tab, pageId]) => ({ tab, pageId }))
    const answer = await fetch(this.#path, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ tabs }),
    })
    if (!answer.ok) throw new Error(`The list of tabs was refused: ${answer.status}`)
  }

  async #look(): Promise<void> {
    const isOpen = await openTabs()
    for (const tab of this.#tabs.keys()) if (tab !== this.#own.tab && !isOpen(tab)) this.remove(tab)
    await this.#list.catchUp()
  }
}
