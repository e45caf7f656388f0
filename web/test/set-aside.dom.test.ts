/** Text that did not make it into the page is set aside, or it is said that it could not be. */
import { beforeEach, expect, jest, test } from '@jest/globals'
import { setAsideEntries } from '../src/editor/session/set-aside.ts'

const owner = { personId: 'p', pageId: 'q' }
const entry = {
  number: 0,
  base: 1,
  at: 0,
  edits: [{ edit: 'set', nodeId: 'gone', at: ['content', 'text'], value: 'The heron stands still' }],
} as const
const stored = (): string => JSON.stringify({ ...localStorage })

beforeEach(() => localStorage.clear())

test('edits that no longer fit are set aside as the text that is in them', () => {
  expect(setAsideEntries(owner, [entry])).toBe(true)
  expect(stored()).toContain('The heron stands still')
})

test('a browser without room says so and keeps what it had, so that the journal need not let go of them', () => {
  setAsideEntries(owner, [entry])
  const before = stored()
  const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  expect(setAsideEntries(owner, [entry])).toBe(false)
  full.mockRestore()
  expect(stored()).toBe(before)
})
