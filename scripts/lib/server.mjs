import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { root, tool } from './paths.mjs'
import { say, Stop } from './say.mjs'

/** Starts our server and waits until it serves. `env` is its configuration; see server/src/config.ts. */
export function startServer(env) {
  const server = spawn(
    process.execPath,
    ['--import', new URL(`file://${tool('tsx/dist/loader.mjs')}`).href, join(root, 'server/src/main.ts')],
    {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
      detached: true,
    },
  )
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
