import { expect } from '@jest/globals'

/** What a law looked at and what it skipped, so that it can't come to skip nearly all that it is given. */
export class Counts {
  #looked = 0
  #skipped = 0

  look(): void {
    this.#looked++
  }

  skip(): void {
    this.#skipped++
  }

  /** Fails unless at least this share of what was given was looked at. */
  expectLooked(share: number): void {
    expect(this.#looked / (this.#looked + this.#skipped)).toBeGreaterThanOrEqual(share)
  }
}
