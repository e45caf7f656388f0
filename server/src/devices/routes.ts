import { Hono } from 'hono'
import type { PrivateAddress } from '@gullyline/core'
import { audit } from '../http/audit.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'
import { endAddress, makeAddress } from './addresses.ts'
import { deviceOrigins } from './device-origins.ts'

/** Private addresses of a page, as it stands in a tab of who asks. */
export function deviceRoutes({ devices, log }: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .post('/:id/private-address/:tab', async (c) => {
      await readBody(c, 'nothing')
      const { person, session, site } = c.var
      const key = keyOf(c)
      const { token, expiresAt } = await site.read((at) => makeAddress(at, { ...key, session }))
      audit(log, 'private address made', { account: person.id, page: key.documentId })
      const made: PrivateAddress = {
        addresses: deviceOrigins(devices).map((origin) => `${origin}/${token}/`),
        isShared: devices.isShared || devices.origin !== undefined,
        expiresAt: expiresAt.toISOString(),
      }
      return c.json(made, 201)
    })
    .delete('/:id/private-address/:tab', async (c) => {
      await c.var.site.read((at) => endAddress(at, keyOf(c)))
      audit(log, 'private address ended', { account: c.var.person.id, page: c.req.param('id') })
      return c.json({ done: true })
    })
}

function keyOf(c: { req: { param(name: 'id' | 'tab'): string }; var: SignedIn['Variables'] }) {
  return { documentId: c.req.param('id'), personId: c.var.person.id, tab: c.req.param('tab') }
}
