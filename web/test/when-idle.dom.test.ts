/** Measuring goes on in moments in which nothing else is to be done: also in Safari, which has no word for them. */
import { afterEach, expect, jest, test } from '@jest/globals'
import { whenIdle } from '../src/ui/when-idle.ts'

const browser = window as unknown as { requestIdleCallback?: unknown }

afterEach(() => {
  delete browser.requestIdleCallback
})

test('an idle moment of the browser is waited for, no longer than asked', async () => {
  let limit: number | undefined
  browser.requestIdleCallback = (act: () => void, { timeout }: { timeout: number }) => {
    limit = timeout
    act()
  }
  await whenIdle(70)
  expect(limit).toBe(70)
})

test('without idle moments, what is due and what is to be painted comes before it', async () => {
  const order: string[] = []
  setTimeout(() => order.push('due'))
  requestAnimationFrame(() => order.push('painted'))
  await whenIdle(10_000)
  expect(order.sort()).toEqual(['due', 'painted'])
})

test('where nothing is painted, as in a tab that is not seen, it comes all the same', async () => {
  const painted = jest.spyOn(window, 'requestAnimationFrame').mockReturnValue(0)
  await whenIdle(5)
  painted.mockRestore()
})
