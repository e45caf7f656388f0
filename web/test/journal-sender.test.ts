/** Edits on their way to the server: soon, once each and in order, whatever the connection does. */
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import fc from 'fast-check'
import type { JournalEntry } from '@gullyline/core'
import { JournalSender } from '../src/editor/journal-sender.ts'
import { Journal } from '../src/editor/journal.ts'
import { someStorage } from './support/storage.ts'

const owner = { personId: 'ines', pageId: 'page', tab: 'tab' }

/** A server that can be away; remembers what reached it. */
function someServer() {
  const got: number[][] = []
  const server = {
    got,
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
  return { journal, server, sender, keep }
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
    sender.subscribe(() => states.push(sender.state))
    keep()
    keep()
    expect([sender.state, server.got]).toEqual(['waiting', []])
    await jest.advanceTimersByTimeAsync(2_000)
    expect([sender.state, server.got]).toEqual(['kept', [[0, 1]]])
    expect(states).toEqual(['waiting', 'kept'])
  })

  test('waits while the server is away, longer each time, and goes as soon as it is asked for again', async () => {
    const { server, sender, keep } = start()
    server.isAway = true
    keep()
    await jest.advanceTimersByTimeAsync(1_000)
    expect(sender.state).toBe('unreachable')
    await jest.advanceTimersByTimeAsync(10 * 60_000)
    const gaps = server.tries.slice(1).map((at, i) => at - server.tries[i]!)
    expect(gaps).toEqual([...gaps].sort((x, y) => x - y))
    expect([gaps.length > 10, Math.max(...gaps)]).toEqual([true, 30_000])
    expect(server.all).toEqual([])
    server.isAway = false
    keep()
    await sender.flush()
    expect([sender.state, server.all]).toEqual(['kept', [0, 1]])
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
    expect([sender.state, server.all]).toEqual(['kept', [1]])
  })

  test('is not sent once the page is left', async () => {
    const { server, sender, keep } = start()
    keep()
    sender.stop()
    await jest.advanceTimersByTimeAsync(60_000)
    expect(server.all).toEqual([])
  })
})

test('whatever happens in between, every edit arrives, once and in order', async () => {
  const happening = fc.constantFrom('keep', 'keep', 'away', 'back', 'wait', 'flush')
  await fc.assert(
    fc.asyncProperty(fc.array(happening, { maxLength: 30 }), async (all) => {
      const { journal, server, sender, keep } = start()
      for (const one of all) {
        if (one === 'keep') keep()
        if (one === 'away' || one === 'back') server.isAway = one === 'away'
        if (one === 'wait') await jest.advanceTimersByTimeAsync(700)
        if (one === 'flush') await sender.flush()
      }
      server.isAway = false
      await jest.advanceTimersByTimeAsync(31_000)
      expect(server.all).toEqual(journal.entries().map(({ number }) => number))
      expect(sender.state).toBe('kept')
      sender.stop()
    }),
    { numRuns: 200 },
  )
})
