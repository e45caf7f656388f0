import type { JournalEntry } from '@gullyline/core'
import { Value } from '../../ui/value.ts'
import type { Journal } from './journal.ts'

/** Edits are on the server after this pause at the latest, as long as it can be reached. */
const PAUSE_MS = 1_000
/** After each failure in a row the pause is twice as long, up to this. */
const LONGEST_PAUSE_MS = 30_000
/** As many as the server takes at a time. */
const MOST_AT_ONCE = 500

/** `full` when the server takes no more of this page's journal until the page is saved. */
export type SenderState = 'sent' | 'waiting' | 'unreachable' | 'full'

/** What the server makes of entries: thrown by the `send` that a sender is given. */
export class JournalFull extends Error {}

/** Copies a journal to the server as it grows, one request at a time, and goes on trying while the server is away. */
export class JournalSender {
  readonly #journal: Journal
  readonly #send: (entries: readonly JournalEntry[]) => Promise<void>
  readonly state = new Value<SenderState>('sent')
  /** All entries below this number are on the server as they are. */
  #sent = 0
  #failures = 0
  #timer: ReturnType<typeof setTimeout> | undefined
  #underWay: Promise<void> | undefined
  #isPaused = false

  constructor(journal: Journal, send: (entries: readonly JournalEntry[]) => Promise<void>) {
    this.#journal = journal
    this.#send = send
  }

  /** To be called for every act that was journaled: the newest entry is new, or another than it was. */
  changed = (): void => {
    this.#sent = Math.min(this.#sent, Math.max(0, this.#journal.lastNumber))
    if (this.state.get() === 'sent') this.state.set('waiting')
    this.#schedule()
  }

  #schedule(): void {
    if (this.#isPaused || this.#timer !== undefined) return
    const pause = Math.min(LONGEST_PAUSE_MS, PAUSE_MS * 2 ** this.#failures)
    this.#timer = setTimeout(() => void this.flush(), pause)
  }

  /** Tries at once, as when the connection is back. */
  flush = async (): Promise<void> => {
    clearTimeout(this.#timer)
    this.#timer = undefined
    if (this.#isPaused || this.#underWay) return
    this.#underWay = this.#sendAll()
    await this.#underWay
    this.#underWay = undefined
    // A letter that came just as the last request ended.
    if (this.state.get() === 'waiting') this.#schedule()
  }

  /** Waits for what is under way and sends nothing more until `release`: a save drops entries on the server, and none may arrive after it. */
  async hold(): Promise<void> {
    this.#isPaused = true
    clearTimeout(this.#timer)
    this.#timer = undefined
    await this.#underWay
  }

  release(): void {
    this.#isPaused = false
    if (this.#hasMore()) {
      this.state.set('waiting')
      this.#schedule()
    } else this.state.set('sent')
  }

  stop(): void {
    this.#isPaused = true
    clearTimeout(this.#timer)
  }

  async #sendAll(): Promise<void> {
    try {
      while (this.#hasMore() && !this.#isPaused) {
        const entries = this.#journal.entries(this.#sent).slice(0, MOST_AT_ONCE)
        // Set before: a letter typed while this is under way sets it back to the entry that it went into.
        const before = this.#sent
        this.#sent = entries.at(-1)!.number + 1
        await this.#send(entries).catch((error: unknown) => {
          this.#sent = Math.min(before, this.#sent)
          throw error
        })
        this.#failures = 0
      }
      if (!this.#hasMore()) this.state.set('sent')
    } catch (error) {
      this.#failures++
      this.state.set(error instanceof JournalFull ? 'full' : 'unreachable')
      this.#schedule()
    }
  }

  #hasMore(): boolean {
    return this.#journal.hasFrom(this.#sent)
  }
}
