/**
 * The runner of tests that need no world of their own. Its processes ask for their settings through one channel that they
 * share, and the first to ask uses up the answers of all: one that starts at the same moment and is not listening yet then
 * waits for ever. So each has a channel of its own here.
 */
import { Tinypool } from 'tinypool'

const { run } = Tinypool.prototype

Tinypool.prototype.run = function (task, options = {}) {
  const own = options.channel ? { channel: settingsChannel(this.options.workerData) } : {}
  return run.call(this, task, { ...options, ...own })
}

/** Answers one process, and as often as it asks. */
function settingsChannel(workerData) {
  let send
  return {
    onMessage: (listener) => {
      send = listener
    },
    postMessage: (message) => {
      if (message === 'jest-light-runner-get-worker-data')
        send({ type: 'jest-light-runner-worker-data', workerData })
    },
  }
}

export { default } from 'jest-light-runner'
