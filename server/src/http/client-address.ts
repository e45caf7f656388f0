import { getConnInfo } from '@hono/node-server/conninfo'
import type { Context } from 'hono'

/** What stands for the address of a request that came by no connection, as in tests. */
const NO_ADDRESS = 'here'

/**
 * The address that a request came from. What a proxy says of it ("X-Forwarded-For") is believed only from this machine,
 * and only its last entry, which the proxy itself has written.
 */
export function addressOf(context: Context): string {
  const direct = connected(context)
  const forwarded = context.req.header('x-forwarded-for')?.split(',').at(-1)?.trim()
  return forwarded !== undefined && forwarded !== '' && isHere(direct) ? forwarded.slice(0, 64) : direct
}

function connected(context: Context): string {
  try {
    return getConnInfo(context).remote.address ?? NO_ADDRESS
  } catch {
    return NO_ADDRESS
  }
}

function isHere(address: string): boolean {
  return address === '127.0.0.1' || address === '::1' || address === '::ffff:127.0.0.1'
}
