import type { JournalEntry } from '@gullyline/core'
import type { Journal } from './journal.ts'

/** Edits are on the server after this pause at the latest, as long as it can be reached. */
const PAUSE_MS = 1_000
/** After each failure in a row the pause is twice as long, up to this. */
const LONGEST_PAUSE_MS = 30_000
/** As many as the server takes at a time. */
const MOST_AT_ONCE = 500

export type SenderState = 'kept' | 'waiting' | 'unreachable'

/** Copies a journal to the server as it grows, one request at a time, and goes on trying while the server is away. */
export class JournalSender {
  readonly #journal: Journal
  readonly #send: (entries: readonly JournalEntry[]) => Promise<void>
  readonly #listeners = new Set<() => void>()
  #state: SenderState = 'kept'
  /** All entries below this number are on the server. */
  #sent = 0
  #failures = 0
  #timer: ReturnType<typeof setTimeout> | undefined
  #underWay: Promise<void> | undefined
  #isHeld = false

  constructor(journal: Journal, send: (entries: readonly JournalEntry[]) => Promise<void>) {
    this.#journal = journal
    this.#send = send
  }

  get state(): SenderState {
    return this.#state
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }

  /** To be told of every entry that was kept. */
  changed = (): void => {
    if (this.#state === 'kept') this.#become('waiting')
    if (this.#isHeld || this.#timer !== undefined) return
    const pause = Math.min(LONGEST_PAUSE_MS, PAUSE_MS * 2 ** this.#failures)
    this.#timer = setTimeout(() => void this.flush(), pause)
  }

  /** Tries at once, as when the connection is back. */
  flush = async (): Promise<void> => {
    clearTimeout(this.#timer)
    this.#timer = undefined
    if (this.#isHeld || this.#underWay) return
    this.#underWay = this.#sendAll()
    await this.#underWay
    this.#underWay = undefined
  }

  /** Waits for what is under way and sends nothing more until `release`: a save drops entries on the server, and none may arrive after it. */
  async hold(): Promise<void> {
    this.#isHeld = true
    clearTimeout(this.#timer)
    this.#timer = undefined
    await this.#underWay
  }

  release(): void {
    this.#isHeld = false
    if (this.#hasMore()) this.changed()
    else this.#become('kept')
  }

  stop(): void {
    this.#isHeld = true
    clearTimeout(this.#timer)
  }

  async #sendAll(): Promise<void> {
    try {
      while (this.#hasMore() && !this.#isHeld) {
        const entries = this.#journal.entries(this.#sent).slice(0, MOST_AT_ONCE)
        await this.#send(entries)
        this.#sent = entries.at(-1)!.number + 1
        this.#failures = 0
      }
      if (!this.#hasMore()) this.#become('kept')
    } catch {
      this.#failures++
      this.#become('unreachable')
      this.changed()
    }
  }

  #hasMore(): boolean {
    return this.#journal.entries(this.#sent).length > 0
  }

  #become(state: SenderState): void {
    if (state === this.#state) return
    this.#state = state
    for (const listener of this.#listeners) listener()
  }
}
