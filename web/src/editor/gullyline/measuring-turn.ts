/**
 * The tabs of a browser share one machine. The page that was changed last is measured first. The other tabs wait, so that
 * the tab that somebody works in is not slowed down.
 */
const NAME = 'gullyline.measuring'
/** A tab that measures says so this often, in ms. One that is edited says so at each change. */
const TELL_EVERY_MS = 250
/** One that has said nothing for so long has ended, or was put to sleep by the browser. */
const RESTS_AFTER_MS = 1_000

/** Says that a page which was changed at this moment is edited or being measured. */
interface Message {
  readonly changedAt: number
}

/** The turn of one tab. */
export class MeasuringTurn {
  readonly #channel = new BroadcastChannel(NAME)
  #changedAt = 0
  #toldAt = 0
  #waitsUntil = 0
  #isClosed = false

  constructor() {
    this.#channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.changedAt > this.#changedAt) this.#waitsUntil = performance.now() + RESTS_AFTER_MS
    }
  }

  /** The page of this tab was changed, or opened: it is measured first from now on. */
  take(): void {
    this.#changedAt = Date.now()
    this.#waitsUntil = 0
    this.#tell()
  }

  /** Settles when no tab with a newer change measures, and tells the others that this one does. */
  async come(): Promise<void> {
    for (let left = this.#left(); left > 0; left = this.#left())
      await new Promise((resolve) => setTimeout(resolve, left))
    if (performance.now() - this.#toldAt > TELL_EVERY_MS) this.#tell()
  }

  dispose(): void {
    this.#isClosed = true
    this.#waitsUntil = 0
    this.#channel.close()
  }

  #left(): number {
    return this.#waitsUntil - performance.now()
  }

  #tell(): void {
    if (this.#isClosed) return
    this.#toldAt = performance.now()
    this.#channel.postMessage({ changedAt: this.#changedAt } satisfies Message)
  }
}
