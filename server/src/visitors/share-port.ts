/** A second process that answers visitors on the same port: one process has one processor, and visitors come in crowds. */
import { fork } from 'node:child_process'
import { existsSync } from 'node:fs'
import type { Server } from 'node:http'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import type { Services } from '../services.ts'

/** What the second process is told; see `visitor-process.ts`. */
export type VisitorConfig = Pick<Services, 'dataDir' | 'liveOrigin'> & {
  /** The site that visitors see. */
  readonly siteId: string
  readonly keepAliveMs: number
  /** How long it goes on with what is under way once the first process stops. */
  readonly finishingMs: number
}

/** What the second process sends: that it is ready for the port, or what went wrong. */
export type VisitorMessage = { readonly isReady: true } | { readonly trouble: string }

/** One that does not end by itself is ended so long after it should have. */
const PATIENCE_MS = 1_000

/**
 * Starts it where there is a second processor and the server was built. It ends with this process, whatever ends that;
 * without it this one answers everybody. Gives how to stop it.
 */
export function sharePort(server: Server, config: VisitorConfig, log: Services['log']): () => Promise<void> {
  const program = join(import.meta.dirname, 'visitor-process.js')
  if (availableParallelism() < 2 || !existsSync(program)) return () => Promise.resolve()
  const child = fork(program)
  let isStopping = false
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()))
  child.on('message', (message: VisitorMessage) => {
    if ('trouble' in message) log.error(message.trouble)
    // Node.js accepts connections as soon as a process has received a port. One whose code is still loading answers none of them.
    else if (!isStopping) child.send(config, server)
  })
  child.on('error', (error) => log.error({ err: error }, 'The second process for visitors failed'))
  void ended.then(() => {
    if (!isStopping) log.warn('The second process for visitors ended. This one answers them all.')
  })
  return async () => {
    isStopping = true
    if (child.connected) child.disconnect()
    const patience = setTimeout(() => child.kill('SIGKILL'), config.finishingMs + PATIENCE_MS)
    await ended
    clearTimeout(patience)
  }
}
