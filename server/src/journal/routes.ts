import { Hono } from 'hono'
import { findDocument } from '../documents/store.ts'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'
import { dropEntries, keepEntries, listJournals } from './store.ts'

/** A person's own unsaved edits, kept on the server as well: nobody else reads or changes them. */
export function journalRoutes({ presence }: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/:id/journal', async (c) => {
      const pageId = c.req.param('id')
      const open = await presence.openTabs(pageId)
      return c.json(await c.var.site.read((at) => listJournals(at, pageId, c.var.person.id, open)))
    })
    .post('/:id/journal/:tab', async (c) => {
      const { entries } = await readBody(c, 'journal')
      await c.var.site.read((at) => keepEntries(at, keyOf(c), entries))
      return c.json({ kept: entries.length })
    })
    .delete('/:id/journal/:tab', async (c) => {
      await c.var.site.read(async (at) => {
        const key = keyOf(c)
        await findDocument(at, key.documentId)
        await dropEntries(at, key)
      })
      return c.json({ done: true })
    })
}

function keyOf(c: { req: { param(name: 'id' | 'tab'): string }; var: SignedIn['Variables'] }): {
  documentId: string
  personId: string
  tab: string
} {
  return { documentId: c.req.param('id'), personId: c.var.person.id, tab: c.req.param('tab') }
}
