const MINUTE_MS = 60_000
/** OWASP Authentication Cheat Sheet, "Account Lockout": few tries in an observation window. The numbers are chosen by us. */
const MOST_TRIES = 5
const WINDOW_MS = 15 * MINUTE_MS
/** So that made-up logins can't fill the memory. */
const MOST_LOGINS = 10_000

/** Counts wrong passwords by login, whether or not there is such an account. */
export class Tries {
  readonly #now: () => number
  readonly #wrong = new Map<string, number[]>()

  constructor(now: () => number = Date.now) {
    this.#now = now
  }

  /** Minutes until another try is taken, rounded up; 0 when it is taken now. */
  minutesToWait(login: string): number {
    const recent = this.#recent(login)
    if (recent.length < MOST_TRIES) return 0
    return Math.ceil((recent[0]! + WINDOW_MS - this.#now()) / MINUTE_MS)
  }

  addWrong(login: string): void {
    const recent = [...this.#recent(login), this.#now()]
    this.#wrong.delete(login)
    if (this.#wrong.size >= MOST_LOGINS) this.#wrong.delete(this.#wrong.keys().next().value!)
    this.#wrong.set(login, recent)
  }

  forget(login: string): void {
    this.#wrong.delete(login)
  }

  #recent(login: string): number[] {
    return (this.#wrong.get(login) ?? []).filter((at) => at > this.#now() - WINDOW_MS)
  }
}
