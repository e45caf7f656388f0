import { Hono } from 'hono'
import { transact } from '../db/transact.ts'
import type { JournalRequest } from '@gullyline/core'
import { readBody } from '../http/read-body.ts'
import type { SignedIn } from '../people/access.ts'
import type { Services } from '../services.ts'
import { dropEntries, keepEntries, listJournals } from './store.ts'

/** A person's own unsaved edits, kept on the server as well: nobody else reads or changes them. */
export function journalRoutes({ db, presence }: Services): Hono<SignedIn> {
  return new Hono<SignedIn>()
    .get('/:id/journal', async (c) => {
      const pageId = c.req.param('id')
      const isOpen = (tab: string): boolean => presence.isOpen(pageId, tab)
      return c.json(await transact(db, (m) => listJournals(m, pageId, c.var.person.id, isOpen)))
    })
    .post('/:id/journal/:tab', async (c) => {
      const { entries } = await readBody<JournalRequest>(c, { entries: 'anything' })
      await transact(db, (m) => keepEntries(m, keyOf(c), entries))
      return c.json({ kept: entries.length })
    })
    .delete('/:id/journal/:tab', async (c) => {
      await transact(db, (m) => dropEntries(m, keyOf(c)))
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
