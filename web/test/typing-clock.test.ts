import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { TypingClock } from '../src/editor/session/typing-clock.ts'

beforeEach(() => {
  jest.useFakeTimers()
})
afterEach(() => {
  jest.useRealTimers()
})

/** The machine is held up: time passes, and nothing is heard. */
function holdUp(ms: number): void {
  jest.setSystemTime(Date.now() + ms)
}

test('a pause of the person is told, short or long', () => {
  const clock = new TypingClock()
  for (const pause of [40, 130, 790, 810, 5_000, 60_000]) {
    const before = clock.now()
    jest.advanceTimersByTime(pause)
    expect(clock.now() - before).toBeGreaterThanOrEqual(Math.min(pause, 800))
    expect(clock.now() - before).toBeLessThanOrEqual(pause)
  }
})

test('a pause of the machine is not taken for one of the person', () => {
  const clock = new TypingClock()
  const before = clock.now()
  holdUp(5_000)
  expect(clock.now() - before).toBeLessThanOrEqual(100)
  jest.advanceTimersByTime(250)
  holdUp(2_000)
  expect(clock.now() - before).toBeLessThan(800)
  jest.advanceTimersByTime(900)
  expect(clock.now() - before).toBeGreaterThan(800)
})

test('a clock that is set back does not go back', () => {
  const clock = new TypingClock()
  const before = clock.now()
  holdUp(-3_600_000)
  expect(clock.now()).toBeGreaterThanOrEqual(before)
})

test('once nobody types it ticks no more, and keeps up with the machine again', () => {
  const clock = new TypingClock()
  clock.now()
  jest.advanceTimersByTime(2_000)
  holdUp(5_000)
  expect(clock.now()).toBe(Date.now())
})
