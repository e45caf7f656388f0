/** How often it is noticed that the editor could have heard a key. */
const TICK_MS = 100
/** Longer than a pause after which what is typed is undone apart. */
const TICKS = 10

/**
 * The time by which typing is parted into what is undone together. It stands still while the machine is too busy for the
 * editor to hear a key: such a wait is not the pause of the person who types.
 */
export class TypingClock {
  #told = 0
  #noticedAt = 0
  #ticksLeft = 0

  /** Milliseconds since 1970, behind by the time in which no key could be heard. */
  now(): number {
    const isTicking = this.#ticksLeft > 0
    if (isTicking) this.#notice()
    else this.#told = this.#noticedAt = Date.now()
    this.#ticksLeft = TICKS
    if (!isTicking) this.#tickOn()
    return this.#told
  }

  #notice(): void {
    const at = Date.now()
    this.#told += Math.min(Math.max(at - this.#noticedAt, 0), TICK_MS)
    this.#noticedAt = at
  }

  #tickOn(): void {
    setTimeout(() => {
      this.#notice()
      if (--this.#ticksLeft > 0) this.#tickOn()
    }, TICK_MS)
  }
}
