/** Edits on their way to the server: soon, once each and in order, whatever the connection does. */
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import fc from 'fast-check'
import type { JournalEntry } from '@gullyline/core'
import { JournalFull, JournalSender } from '../src/editor/session/journal-sender.ts'
import { Journal } from '../src/editor/session/journal.ts'
import { someStorage } from './support/storage.ts'

const owner = { personId: 'ines', pageId: 'page', tab: 'tab' }

/** A server that can be away; remembers what reached it. */
function someServer() {
  const got: number[][] = []
  const server = {
    got,
    /** Entries as they are there by now. */
    has: new Map<number, JournalEntry>(),
    isAway: false,
    /** When something was sent, in ms, whether it arrived or not. */
    tries: [] as number[],
    /** Everything that arrived, in the order it came. */
    get all(): number[] {
      return got.flat()
    },
    send: (entries: readonly JournalEntry[]): Promise<void> => {
      server.tries.push(Date.now())
      if (server.isAway) return Promise.reject(new Error('away'))
      got.push(entries.map(({ number }) => number))
      for (const entry of entries) server.has.set(entry.number, entry)
      return Promise.resolve()
    },
  }
  return server
}

function start() {
  const journal = new Journal(someStorage(), owner)
  const server = someServer()
  const sender = new JournalSender(journal, server.send)
  const keep = (): void => {
    journal.keep(1, 0, [])
    sender.changed()
  }
  /** A letter typed into the value that was typed into before. */
  const type = (value: string): void => {
    journal.keep(1, 0, [{ edit: 'set', nodeId: 'a', at: ['name'], value }])
    sender.changed()
  }
  return { journal, server, sender, keep, type }
}

beforeEach(() => {
  jest.useFakeTimers()
})
afterEach(() => {
  jest.useRealTimers()
})

describe('an edit that was kept', () => {
  test('is on the server within two seconds, with those made meanwhile in the same request', async () => {
    const { server, sender, keep } = start()
    const states: string[] = []
    sender.state.subscribe(() => states.push(sender.state.get()))
    keep()
    keep()
    expect([sender.state.get(), server.got]).toEqual(['waiting', []])
    await jest.advanceTimersByTimeAsync(2_000)
    expect([sender.state.get(), server.got]).toEqual(['sent', [[0, 1]]])
    expect(states).toEqual(['waiting', 'sent'])
  })

  test('waits while the server is away, longer each time, and goes as soon as it is asked for again', async () => {
    const { server, sender, keep } = start()
    server.isAway = true
    keep()
    await jest.advanceTimersByTimeAsync(1_000)
    expect(sender.state.get()).toBe('unreachable')
    await jest.advanceTimersByTimeAsync(10 * 60_000)
    const gaps = server.tries.slice(1).map((at, i) => at - server.tries[i]!)
    expect(gaps).toEqual([...gaps].sort((x, y) => x - y))
    expect([gaps.length > 10, Math.max(...gaps)]).toEqual([true, 30_000])
    expect(server.all).toEqual([])
    server.isAway = false
    keep()
    await sender.flush()
    expect([sender.state.get(), server.all]).toEqual(['sent', [0, 1]])
  })

  test('does not arrive while a save is under way, and what came meanwhile follows it', async () => {
    const { journal, server, sender, keep } = start()
    keep()
    await sender.hold()
    keep()
    await jest.advanceTimersByTimeAsync(60_000)
    await sender.flush()
    expect(server.all).toEqual([])
    // The save has taken the first one in; the second one stands on what it saved.
    journal.dropUntil(1, 2)
    sender.release()
    await jest.advanceTimersByTimeAsync(2_000)
    expect([sender.state.get(), server.all]).toEqual(['sent', [1]])
  })

  test('is not sent once the page is left', async () => {
    const { server, sender, keep } = start()
    keep()
    sender.stop()
    await jest.advanceTimersByTimeAsync(60_000)
    expect(server.all).toEqual([])
  })
})

test('whatever happens in between, the server has every edit as it is in the end, and none twice in a row for nothing', async () => {
  const happening = fc.constantFrom(
    'keep',
    'type',
    'type',
    'away',
    'back',
    'wait',
    'flush',
    'hold',
    'release',
  )
  await fc.assert(
    fc.asyncProperty(fc.array(happening, { maxLength: 30 }), async (all) => {
      const { journal, server, sender, keep, type } = start()
      let letters = 0
      for (const one of all) {
        if (one === 'keep') keep()
        if (one === 'type') type('x'.repeat(++letters))
        if (one === 'away' || one === 'back') server.isAway = one === 'away'
        if (one === 'wait') await jest.advanceTimersByTimeAsync(700)
        if (one === 'flush') await sender.flush()
        if (one === 'hold') await sender.hold()
        if (one === 'release') sender.release()
      }
      server.isAway = false
      sender.release()
      await jest.advanceTimersByTimeAsync(31_000)
      expect([...server.has.values()].sort((a, b) => a.number - b.number)).toEqual(journal.entries())
      expect(sender.state.get()).toBe('sent')
      sender.stop()
    }),
    { numRuns: 200 },
  )
})

test('a journal that is full on the server is said so, and goes on once there is room', async () => {
  const { journal, server, keep } = start()
  let isFull = true
  const sender = new JournalSender(journal, (entries) =>
    isFull ? Promise.reject(new JournalFull()) : server.send(entries),
  )
  keep()
  sender.changed()
  await jest.advanceTimersByTimeAsync(1_500)
  expect(sender.state.get()).toBe('full')
  isFull = false
  await jest.advanceTimersByTimeAsync(31_000)
  expect(sender.state.get()).toBe('sent')
})
