/**
 * What waits for the next frame: done once, after it; done at last where no frame comes; never once called off.
 *
 * @jest-environment node
 */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { afterPaint } from '../src/ui/after-paint.ts'

let frames: Map<number, () => void>
let works: number
beforeEach(() => {
  frames = new Map()
  works = 0
  let asked = 0
  Object.assign(globalThis, {
    requestAnimationFrame: (work: () => void) => {
      frames.set(++asked, work)
      return asked
    },
    cancelAnimationFrame: (id: number) => frames.delete(id),
  })
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] })
})
afterEach(() => void jest.useRealTimers())

/** Draws a frame, and lets what was posted in it come. */
async function drawFrame(): Promise<void> {
  for (const [id, work] of frames) {
    frames.delete(id)
    work()
  }
  expect(works).toBe(0)
  for (let turn = 0; turn < 5; turn++) await new Promise((resolve) => setImmediate(resolve))
}

test('it is done once, after the frame and not in it', async () => {
  afterPaint(() => works++)
  expect(works).toBe(0)
  await drawFrame()
  expect(works).toBe(1)
  jest.advanceTimersByTime(10_000)
  expect(works).toBe(1)
})

test('where no frame is drawn, it is done within a second', () => {
  afterPaint(() => works++)
  jest.advanceTimersByTime(1_000)
  expect(works).toBe(1)
  expect(frames.size).toBe(0)
})

test.each(['before the frame', 'between the frame and what comes after it'])(
  'called off %s, it is not done',
  async (when) => {
    const callOff = afterPaint(() => works++)
    if (when === 'before the frame') callOff()
    const drawn = drawFrame()
    callOff()
    await drawn
    jest.advanceTimersByTime(10_000)
    expect(works).toBe(0)
  },
)
