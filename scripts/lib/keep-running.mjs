import { say, Stop } from './say.mjs'

/** So many ends within a minute are no accident: something is wrong that starting again does not mend. */
const MOST_RESTARTS = 5
const WITHIN_MS = 60_000
const PAUSE_MS = 500

/**
 * Keeps something running that may be killed: started again when it ends by itself, a few times a minute. `start` gives
 * what runs, with `ended` and `stop`. Gives its present self, `stop`, and `failed`, which is rejected once it ends too often.
 */
export async function keepRunning(what, start) {
  const ends = []
  let isStopping = false
  let current = await start()
  const watch = async () => {
    for (;;) {
      await current.ended
      if (isStopping) return
      const now = Date.now()
      ends.push(now)
      if (ends.filter((at) => at > now - WITHIN_MS).length > MOST_RESTARTS)
        throw new Stop(
          `${what} ended ${MOST_RESTARTS + 1} times within a minute. What it said stands above; nothing that was saved is lost.`,
        )
      say(`${what} ended by itself; starting it again`)
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS))
      if (isStopping) return
      current = await start()
      // Asked to stop while it was starting: what has just come up must not be left behind.
      if (isStopping) return void (await current.stop())
    }
  }
  const failed = watch()
  failed.catch(() => undefined)
  return {
    get current() {
      return current
    },
    failed,
    stop: async () => {
      isStopping = true
      await current.stop()
      await failed.catch(() => undefined)
    },
  }
}
