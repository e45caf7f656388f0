/** Parts that would stand in each other. */
import { findRing } from '@gullyline/core'
import { PartEntity } from '../db/document-rows.ts'
import { thingsUsedBy } from '../documents/uses.ts'
import { Refused } from '../http/errors.ts'
import type { SiteData } from '../db/site-scope.ts'

/** Refuses parts whose newest versions stand in themselves, and names those of the ring. */
export async function refuseRing(at: SiteData, ids: readonly string[]): Promise<void> {
  const shows = new Map<string, readonly string[]>()
  let pending = ids
  while (pending.length > 0) {
    const next: string[] = []
    for (const id of pending) {
      const used = await thingsUsedBy(at, [id])
      const parts = used.flatMap(({ thing, target }) => (thing === 'part' ? [target] : []))
      shows.set(id, parts)
      next.push(...parts)
    }
    pending = [...new Set(next)].filter((id) => !shows.has(id))
  }
  const ring = findRing(ids, (id) => shows.get(id) ?? [])
  if (!ring) return
  const names: string[] = []
  for (const id of ring) {
    const row = await at.manager.findOneBy(PartEntity, { id, siteId: at.siteId })
    names.push(`“${row?.name ?? id}”`)
  }
  throw new Refused(
    'not-valid',
    `Nothing was saved, because a shared section would stand in itself: ${[...names, names[0]].join(' shows ')}. Your edits are kept; take one of them out.`,
  )
}
