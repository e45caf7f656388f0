/** A state on its way to the server: whatever the answers take, the server ends with the newest. */
import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { NewestSender } from '../src/editor/session/newest-sender.ts'

/** What arrives does so in an order of its own, as requests do; some never do. */
function someServer(scheduler: fc.Scheduler, fails: () => boolean) {
  const server = {
    state: 0,
    isAway: false,
    put: async (state: number): Promise<void> => {
      await scheduler.schedule(Promise.resolve(), `put ${state}`)
      if (server.isAway || fails()) throw new Error('away')
      server.state = state
    },
  }
  return server
}

test('the server ends with the newest state, in whatever order requests arrive and however many fail', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.scheduler(),
      fc.array(fc.boolean(), { maxLength: 6 }),
      fc.integer({ min: 1, max: 8 }),
      async (scheduler, failures, changes) => {
        const server = someServer(scheduler, () => failures.shift() ?? false)
        let state = 0
        const sender = new NewestSender(() => server.put(state))
        const makeChange = (): Promise<void> => {
          state += 1
          return sender.changed()
        }
        const all = Array.from({ length: changes }, makeChange)
        await scheduler.waitFor(Promise.all(all))
        // As often as something can fail, and once more.
        for (let i = 0; i <= 6; i++) await scheduler.waitFor(sender.catchUp())
        expect(server.state).toBe(changes)
      },
    ),
  )
}, 30_000)

test('a state that did not arrive is sent again, and one that did is not', async () => {
  let sent = 0
  let isAway = true
  const sender = new NewestSender(() => {
    sent += 1
    return isAway ? Promise.reject(new Error('away')) : Promise.resolve()
  })
  await sender.changed()
  isAway = false
  await sender.catchUp()
  await sender.catchUp()
  expect(sent).toBe(2)
})
