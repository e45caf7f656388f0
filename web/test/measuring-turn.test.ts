import { afterEach, expect, test } from '@jest/globals'
import { MeasuringTurn } from '../src/editor/gullyline/measuring-turn.ts'

const turns: MeasuringTurn[] = []

/** A tab, whose page was changed after those of the tabs before it. */
async function openTab(): Promise<MeasuringTurn> {
  await wait(5)
  const turn = new MeasuringTurn()
  turns.push(turn)
  turn.take()
  await wait(5)
  return turn
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

/** Whether it is the tab's turn within so many ms. */
const comesWithin = (ms: number, turn: MeasuringTurn) =>
  Promise.race([turn.come().then(() => true), wait(ms).then(() => false)])

afterEach(() => {
  for (const turn of turns.splice(0)) turn.dispose()
})

test('one tab alone waits for nobody', async () => {
  expect(await comesWithin(100, await openTab())).toBe(true)
})

test('the page that was changed last is measured first; the other goes on once that one rests', async () => {
  const first = await openTab()
  const second = await openTab()
  expect(await comesWithin(300, first)).toBe(false)
  expect(await comesWithin(300, second)).toBe(true)
  await first.come()
  // Changed again, it is the other’s turn to wait.
  first.take()
  await wait(5)
  expect(await comesWithin(300, first)).toBe(true)
  expect(await comesWithin(300, second)).toBe(false)
})

test('while it measures on, the others wait', async () => {
  const first = await openTab()
  const second = await openTab()
  let isFirst = false
  const waiting = first.come().then(() => (isFirst = true))
  for (let slice = 0; slice < 5; slice++) {
    await second.come()
    await wait(260)
  }
  expect(isFirst).toBe(false)
  second.dispose()
  await waiting
})

test('a tab that is closed waits no more', async () => {
  const first = await openTab()
  await openTab()
  first.dispose()
  await wait(300)
  expect(await comesWithin(100, first)).toBe(true)
})
