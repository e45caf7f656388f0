import { expect, test } from '@jest/globals'
import { keepRunning } from '../lib/keep-running.mjs'

/** Something that runs until it is killed or stopped. */
function someProcess() {
  let end: () => void = () => undefined
  const ended = new Promise<void>((resolve) => (end = resolve))
  return {
    ended,
    kill: () => end(),
    stop: () => {
      end()
      return ended
    },
  }
}

test('what is killed is started again, and what is stopped stays so', async () => {
  const started: ReturnType<typeof someProcess>[] = []
  const kept = await keepRunning('It', () => {
    started.push(someProcess())
    return Promise.resolve(started.at(-1)!)
  })
  started[0]!.kill()
  await new Promise((resolve) => setTimeout(resolve, 1_000))
  expect(started).toHaveLength(2)
  expect(kept.current).toBe(started[1])
  await kept.stop()
  await kept.failed
  expect(started).toHaveLength(2)
})

test('what is coming up again while it is told to stop is stopped as well', async () => {
  const started: ReturnType<typeof someProcess>[] = []
  let isUp: () => void = () => undefined
  const kept = await keepRunning('It', async () => {
    const one = someProcess()
    started.push(one)
    if (started.length > 1) await new Promise<void>((resolve) => (isUp = resolve))
    return one
  })
  started[0]!.kill()
  await new Promise((resolve) => setTimeout(resolve, 1_000))
  const stopped = kept.stop()
  isUp()
  await stopped
  expect(started).toHaveLength(2)
  let hasEnded = false
  void started[1]!.ended.then(() => (hasEnded = true))
  await Promise.resolve()
  expect(hasEnded).toBe(true)
})

test('what ends again and again is given up, with a sentence', async () => {
  let count = 0
  const kept = await keepRunning('It', () => {
    count++
    const one = someProcess()
    one.kill()
    return Promise.resolve(one)
  })
  await expect(kept.failed).rejects.toThrow(/It ended 6 times within a minute/)
  expect(count).toBe(6)
})
