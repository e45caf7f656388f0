/** The second process for visitors: gets the port from the first, and answers as that one does. See `share-port.ts`. */
import type { Server } from 'node:net'
import { createSiteServer } from './site-app.ts'
import type { VisitorConfig, VisitorMessage } from './share-port.ts'

/** Where the first process is gone, nobody is told; this one ends by itself then. */
const tell = (message: VisitorMessage): void =>
  void process.send?.(message, undefined, undefined, () => undefined)

process.once('message', ({ keepAliveMs, finishingMs, ...config }: VisitorConfig, port: Server) => {
  const log = {
    error: ({ err }: { err: unknown }, words: string) => tell({ trouble: `${words}: ${String(err)}` }),
  }
  const server = createSiteServer({ ...config, log })
  server.keepAliveTimeout = keepAliveMs
  server.listen(port)
  // The first process is gone or is stopping: nothing new is taken, and what is under way is finished.
  process.once('disconnect', () => {
    server.close(() => process.exit(0))
    server.closeIdleConnections()
    setTimeout(() => process.exit(0), finishingMs)
  })
})

// Already gone while this one was starting.
if (!process.connected) process.exit(0)
tell({ isReady: true })
// A key press in the terminal reaches every process; the first one says when it is over.
process.on('SIGINT', () => undefined)
process.on('SIGTERM', () => undefined)
