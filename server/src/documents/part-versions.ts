/** The versions of parts that a document is shown with. */
import { In } from 'typeorm'
import { defaultRegistry, partsShownBy, type Page } from '@gullyline/core'
import { DocumentEntity, type DocumentRow } from '../db/document-rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { liveVersions } from './live.ts'
import { findVersions, readDocument, type Version } from './versions.ts'

/** A version of a part, with its document brought up to the format of today. */
type PartVersion = Version & { readonly page: Page }

/**
 * Returns the documents of the parts that a document shows, at whatever depth: of each the version that is to go live, or
 * else the one that is live, or else the newest. Parts that do not exist are left out.
 */
export function partsToPublish(
  at: SiteData,
  document: Page,
  goingLive: Readonly<Record<string, number | null>>,
): Promise<Readonly<Record<string, PartVersion>>> {
  return versionsOfParts(at, document, async (rows) => {
    const live = await liveVersions(
      at,
      rows.map(({ id }) => id),
    )
    return ({ id, version }) => goingLive[id] ?? live.get(id)?.version ?? version
  })
}

/** The same with the newest version of each. */
export function newestParts(at: SiteData, document: Page): Promise<Readonly<Record<string, PartVersion>>> {
  return versionsOfParts(at, document, () => Promise.resolve(({ version }) => version))
}

async function versionsOfParts(
  at: SiteData,
  document: Page,
  chooserFor: (rows: readonly DocumentRow[]) => Promise<(row: DocumentRow) => number>,
): Promise<Readonly<Record<string, PartVersion>>> {
  const found: Record<string, PartVersion> = {}
  let pending = partsIn(document)
  while (pending.length > 0) {
    const rows = await at.manager.findBy(DocumentEntity, { id: In([...pending]), siteId: at.siteId })
    if (rows.length === 0) break
    const numberOf = await chooserFor(rows)
    const wanted = rows.map((row) => ({ documentId: row.id, number: numberOf(row) }))
    for (const [id, version] of await findVersions(at, wanted, (one) => one))
      found[id] = { ...version, page: readDocument(version) }
    const next = new Set(wanted.flatMap(({ documentId }) => partsIn(found[documentId]!.page)))
    pending = [...next].filter((id) => !Object.hasOwn(found, id))
  }
  return found
}

function partsIn(document: Page): readonly string[] {
  return partsShownBy(document, Object.keys(document.nodes), defaultRegistry)
}

/** The documents of parts alone, as what renders asks for them. */
export function documentsOf(parts: Readonly<Record<string, PartVersion>>): Readonly<Record<string, Page>> {
  return Object.fromEntries(Object.entries(parts).map(([id, { page }]) => [id, page]))
}
