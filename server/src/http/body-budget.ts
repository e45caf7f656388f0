import { Refused } from './errors.ts'

/** A request that waits longer for its turn is told to come again. */
const LONGEST_WAIT_MS = 20_000

/**
 * How many bytes of request bodies are in memory at a time. A request waits until there is room for all it may send; so
 * many people who send much at once take longer, and never more memory.
 */
export class BodyBudget {
  #left: number
  readonly #mostWaiting: number
  readonly #waiting: { readonly bytes: number; readonly go: () => void }[] = []

  constructor(bytes: number, mostWaiting: number) {
    this.#left = bytes
    this.#mostWaiting = mostWaiting
  }

  /** Resolves, once there is room, with how to give it back. Refuses with `busy` when too many wait, or for too long. */
  async take(bytes: number): Promise<() => void> {
    if (bytes > this.#left || this.#waiting.length > 0) await this.#wait(bytes)
    else this.#left -= bytes
    let isGiven = false
    return () => {
      if (isGiven) return
      isGiven = true
      this.#left += bytes
      this.#next()
    }
  }

  #wait(bytes: number): Promise<void> {
    if (this.#waiting.length >= this.#mostWaiting) throw busy()
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        this.#waiting.splice(this.#waiting.indexOf(one), 1)
        reject(busy())
      }, LONGEST_WAIT_MS)
      const one = {
        bytes,
        go: () => {
          clearTimeout(timer)
          resolve()
        },
      }
      this.#waiting.push(one)
    })
  }

  #next(): void {
    for (let first = this.#waiting[0]; first && first.bytes <= this.#left; first = this.#waiting[0]) {
      this.#waiting.shift()
      this.#left -= first.bytes
      first.go()
    }
  }
}

function busy(): Refused {
  return new Refused(
    'busy',
    'Too much is being sent to the server just now. Nothing was changed; try again in a moment.',
  )
}
