import { randomInt } from 'node:crypto'
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

/**
 * Above those that browsers refuse to go to (Fetch standard, "bad port"), and below those that Linux gives to connections
 * that go out (ip(7), ip_local_port_range), any of which may be next.
 */
const OWN_PORTS = [11_000, 32_768]

/** A port that nothing listens on now, and that no connection is given while who asked for it has not begun to listen. */
export async function freePort() {
  for (;;) {
    const port = randomInt(...OWN_PORTS)
    if (await isFree(port)) return port
  }
}
