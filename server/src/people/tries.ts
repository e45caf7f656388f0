const MINUTE_MS = 60_000
/** OWASP Authentication Cheat Sheet, "Account Lockout": few tries in an observation window. The numbers are chosen by us. */
const WINDOW_MS = 15 * MINUTE_MS
/** Wrong passwords for one account from one address: then that address waits for the rest of the window. */
const MOST_FROM_ADDRESS = 5
/** Wrong passwords from one address, for whatever accounts. */
const MOST_OF_ADDRESS = 30
/**
 * Wrong passwords for one account from all addresses together: then everybody waits, and only for a moment. Strangers can
 * slow a person's sign-in down, and not keep it away.
 */
const MOST_FOR_ACCOUNT = 30
const ACCOUNT_WAIT_MS = MINUTE_MS
/** So that made-up logins and addresses can't fill the memory. */
const MOST_KEYS = 10_000
/** Twice what counts, so that taking a right one back never lets go of a wrong one that counts. */
const MOST_TIMES = 60

/** Counts wrong passwords, by account and by address, whether or not there is such an account. */
export class Tries {
  readonly #now: () => number
  readonly #wrong = new Map<string, number[]>()

  constructor(now: () => number = Date.now) {
    this.#now = now
  }

  /** Minutes until another try is taken, rounded up; 0 when it is taken now. `account` is an id, or a login nobody has. */
  minutesToWait(account: string, address: string): number {
    const waits = [
      this.#wait(pair(account, address), MOST_FROM_ADDRESS, WINDOW_MS),
      this.#wait(of('address', address), MOST_OF_ADDRESS, WINDOW_MS),
      this.#wait(of('account', account), MOST_FOR_ACCOUNT, ACCOUNT_WAIT_MS),
    ]
    return Math.ceil(Math.max(...waits) / MINUTE_MS)
  }

  /** Counts a try as wrong; gives when it was, by which `forget` knows it again. */
  addWrong(account: string, address: string): number {
    const at = this.#now()
    for (const key of [pair(account, address), of('address', address), of('account', account)])
      this.#add(key, at)
    return at
  }

  /**
   * After a right password: this account may be tried from this address as if nothing had been, and the try of `at` counts
   * for nobody. Wrong ones for other accounts from there, and for this one from elsewhere, still do.
   */
  forget(account: string, address: string, at: number): void {
    this.#wrong.delete(pair(account, address))
    for (const key of [of('address', address), of('account', account)]) this.#takeBack(key, at)
  }

  #wait(key: string, most: number, ms: number): number {
    const recent = this.#recent(key)
    if (recent.length < most) return 0
    // From the first of those that count, so that waiting ends however often somebody tries meanwhile.
    const since = ms === WINDOW_MS ? recent.at(-most)! : recent.at(-1)!
    return Math.max(0, since + ms - this.#now())
  }

  #takeBack(key: string, at: number): void {
    const all = this.#wrong.get(key) ?? []
    const index = all.lastIndexOf(at)
    if (index < 0) return
    if (all.length === 1) this.#wrong.delete(key)
    else this.#wrong.set(key, all.toSpliced(index, 1))
  }

  #add(key: string, at: number): void {
    const recent = [...this.#recent(key), at].slice(-MOST_TIMES)
    this.#wrong.delete(key)
    if (this.#wrong.size >= MOST_KEYS) this.#wrong.delete(this.#wrong.keys().next().value!)
    this.#wrong.set(key, recent)
  }

  #recent(key: string): number[] {
    return (this.#wrong.get(key) ?? []).filter((at) => at > this.#now() - WINDOW_MS)
  }
}

function of(what: 'account' | 'address', name: string): string {
  return `${what} ${name}`
}

function pair(account: string, address: string): string {
  return `${account} from ${address}`
}
