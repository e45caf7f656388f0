import { In, IsNull } from 'typeorm'
import {
  anchorsOf,
  defaultRegistry,
  documentUses,
  expandParts,
  instanceFindings,
  pagesLinkedInto,
  runChecks,
  runSectionChecks,
  settingsOf,
  themedLook,
  type CheckedSite,
  type Finding,
  type Look,
  type Page,
  type UsedThing,
} from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import { findNewest, findVersion, readDocument } from '../documents/versions.ts'
import { documentsOf, partsToPublish } from '../documents/part-versions.ts'
import { filesOf, picturesOf } from '../media/store.ts'
import { findSite } from '../documents/site-row.ts'
import { findPageRow } from './store.ts'
import type { SiteData } from '../db/site-scope.ts'

/** The versions of what goes live together, by the ids of documents. */
type GoingLive = Readonly<Record<string, number | null>>

interface Seen {
  /** A document with the parts that visitors will see in it. */
  readonly document: Page
  /** What its instances don't fill in as those ask for. */
  readonly fields: readonly Finding[]
}

async function seenByVisitors(at: SiteData, document: Page, goingLive: GoingLive): Promise<Seen> {
  const parts = documentsOf(await partsToPublish(at, document, goingLive))
  const partOf = (id: string): Page | undefined => parts[id]
  return {
    document: expandParts(document, defaultRegistry, parts),
    // Also in the parts that it shows: what they lack goes live with it.
    fields: [document, ...Object.values(parts)].flatMap((one) =>
      instanceFindings(one, Object.keys(one.nodes), partOf, defaultRegistry),
    ),
  }
}

/** What the checks find on one version of a page, and in the parts that it shows: what decides whether it may go live. */
export async function pageFindings(
  at: SiteData,
  pageId: string,
  version: number,
  goingLive: GoingLive = {},
): Promise<readonly Finding[]> {
  await findPageRow(at, pageId)
  const saved = readDocument(await findVersion(at, pageId, version))
  const { document, fields } = await seenByVisitors(at, saved, goingLive)
  return [...fields, ...runChecks(document, await checkedSite(at, document), defaultRegistry)]
}

/** What the checks find on one version of a shared section. */
export async function sectionFindings(
  at: SiteData,
  documentId: string,
  version: number,
  goingLive: GoingLive = {},
): Promise<readonly Finding[]> {
  const saved = readDocument(await findVersion(at, documentId, version))
  const { document, fields } = await seenByVisitors(at, saved, goingLive)
  return [...fields, ...runSectionChecks(document, await checkedSite(at, document), defaultRegistry)]
}

/** What the site has of what a document refers to. */
async function checkedSite(at: SiteData, document: Page): Promise<CheckedSite> {
  const look = themedLook((await findSite(at)).look as Look, settingsOf(document).theme)
  const used = documentUses(document, defaultRegistry, look)
  const idsOf = (thing: UsedThing): string[] => used.filter((one) => one.thing === thing).map((one) => one.id)
  const others = await at.manager.find(PageEntity, {
    where: { siteId: at.siteId, binnedAt: IsNull(), id: In(idsOf('page')) },
    select: { id: true },
  })
  // Of most pages it is enough to know that they are there; only those that are linked into are read.
  const anchors: Record<string, readonly string[] | undefined> = {}
  const linkedInto = new Set(pagesLinkedInto(document, defaultRegistry))
  for (const { id } of others) {
    anchors[id] = linkedInto.has(id)
      ? anchorsOf(readDocument(await findNewest(at, id)), defaultRegistry)
      : undefined
  }
  return {
    ...settingsOf(document),
    look,
    pages: anchors,
    pictures: await picturesOf(at, idsOf('picture')),
    files: await filesOf(at, idsOf('file')),
  }
}
