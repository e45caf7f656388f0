import { equals, iterableEquality } from '@jest/expect-utils'

const { expect: inFull } = globalThis

export const { describe, test, it, beforeAll, afterAll, beforeEach, afterEach, jest } = globalThis

/**
 * Jest makes some 360 functions for everything that is expected, of which one is called. Laws expect it half a million
 * times, so what is plainly as expected is told without; whatever else is asked, and what failed, is Jest's to tell.
 */
class Expectation {
  constructor(actual) {
    this.actual = actual
  }

  toBe(expected) {
    if (!Object.is(this.actual, expected)) inFull(this.actual).toBe(expected)
  }

  toEqual(expected) {
    if (!equals(this.actual, expected, [iterableEquality])) inFull(this.actual).toEqual(expected)
  }

  toBeUndefined() {
    if (this.actual !== undefined) inFull(this.actual).toBeUndefined()
  }
}

const COMPARISONS = {
  toBeGreaterThan: (actual, expected) => actual > expected,
  toBeGreaterThanOrEqual: (actual, expected) => actual >= expected,
  toBeLessThan: (actual, expected) => actual < expected,
  toBeLessThanOrEqual: (actual, expected) => actual <= expected,
}

for (const [name, holds] of Object.entries(COMPARISONS))
  Expectation.prototype[name] = function (expected) {
    const areNumbers = typeof this.actual === 'number' && typeof expected === 'number'
    if (!areNumbers || !holds(this.actual, expected)) inFull(this.actual)[name](expected)
  }

for (const name of Object.keys(inFull(undefined)))
  if (!Object.hasOwn(Expectation.prototype, name))
    Object.defineProperty(Expectation.prototype, name, {
      get() {
        return inFull(this.actual)[name]
      },
    })

export const expect = Object.assign((actual) => new Expectation(actual), inFull)
