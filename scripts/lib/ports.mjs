import { createServer } from 'node:net'
import { Stop } from './say.mjs'

/** Throws a `Stop` that names the variable to set when something else listens on the port. */
export async function assertFree(port, variable, what) {
  if (!(await isFree(port))) {
    throw new Stop(
      `Port ${port}, wanted for ${what}, is taken. Stop what uses it, or set ${variable} to another port: ${variable}=${port + 100} npm start`,
    )
  }
}

/** Whether nothing listens on a port of this machine. */
export function isFree(port) {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
}

/** A port that nothing listens on now. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address()
      probe.close(() => resolve(port))
    })
  })
}
