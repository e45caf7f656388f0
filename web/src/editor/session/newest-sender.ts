/**
 * Sends a state as it is by now whenever it changed, one time after the other: of two that are under way at once the older
 * could arrive last, and would stay.
 */
export class NewestSender {
  readonly #send: () => Promise<void>
  #isBehind = false
  #isSending = false

  /** `send` sends what is the state then, and fails when it did not arrive. */
  constructor(send: () => Promise<void>) {
    this.#send = send
  }

  /** Sends the state now, or after what is under way. One that fails is sent with the next change, or by `catchUp`. */
  async changed(): Promise<void> {
    this.#isBehind = true
    if (this.#isSending) return
    this.#isSending = true
    try {
      while (this.#isBehind) {
        this.#isBehind = false
        await this.#send()
      }
    } catch {
      this.#isBehind = true
    } finally {
      this.#isSending = false
    }
  }

  /** Sends again what did not arrive. */
  async catchUp(): Promise<void> {
    if (this.#isBehind) await this.changed()
  }
}
