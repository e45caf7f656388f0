import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { root, tool } from './paths.mjs'
import { say, Stop } from './say.mjs'

const FROM_SOURCE = ['--import', pathToFileURL(tool('tsx/dist/loader.mjs')).href]

/**
 * Starts our server and waits until it serves. `env` is its configuration; see server/src/config.ts. It runs as it was
 * built, or from its source. `within` is a command that runs it in surroundings of its own, for tests.
 */
export function startServer(env, { fromSource = false, within = [] } = {}) {
  const [command, ...args] = [
    ...within,
    process.execPath,
    ...(fromSource
      ? [...FROM_SOURCE, join(root, 'server/src/main.ts')]
      : ['--enable-source-maps', join(root, 'server/dist/main.js')]),
  ]
  const server = spawn(command, args, {
    cwd: root,
    // Each thread that makes pictures would keep what it freed in an arena of its own (mallopt(3), M_ARENA_MAX): with
    // two for all, eight pictures of 12 megapixels took 390 MiB and not 660.
    env: { MALLOC_ARENA_MAX: '2', ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
    detached: true,
  })
  let complaint = ''
  server.stderr.on('data', (part) => {
    complaint += part
    process.stderr.write(part)
  })
  const ended = new Promise((resolve) => server.once('exit', resolve))
  const ready = new Promise((resolve, reject) => {
    server.on('message', (message) => {
      if (message.say) say(message.say)
      if (message.ready) resolve()
    })
    void ended.then(() => reject(new Stop(`The server did not start:\n${complaint.trim().slice(-1500)}`)))
  })
  return {
    ready,
    ended,
    pid: server.pid,
    stop: async () => {
      server.kill('SIGTERM')
      await ended
    },
    kill: async () => {
      server.kill('SIGKILL')
      await ended
    },
  }
}
