import { IsNull } from 'typeorm'
import {
  defaultRegistry,
  LONGEST_DESCRIPTION,
  LONGEST_TITLE,
  sameJson,
  settingsOf,
  textOf,
  withSettings,
  type JsonObject,
  type OpenedPage,
  type Page,
  type PageDocument,
  type PageMore,
  type PageSettingsRequest,
  type PageSummary,
  type VersionInfo,
} from '@gullyline/core'
import { PageEntity, type PageRow } from '../db/rows.ts'
import { liveVersionOf, liveVersions } from '../documents/live.ts'
import {
  insertVersion,
  lockDocument,
  type Author,
  type LockedDocument,
  type NextVersion,
} from '../documents/store.ts'
import {
  findNewest,
  findVersion,
  listVersions,
  newestVersions,
  noDocument,
  readDocument,
  versionInfo,
} from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import { refuseStale } from '../http/refuse-stale.ts'
import { aroundPage } from './around.ts'
import { asTree, pagePaths, summarize } from './tree.ts'
import type { SiteChange, SiteData } from '../db/site-scope.ts'

/** All pages of a site in the order of the tree: by parent, then by position. */
export async function listPages(at: SiteData): Promise<PageSummary[]> {
  const where = { siteId: at.siteId, binnedAt: IsNull() }
  const pages = asTree(await at.manager.find(PageEntity, { where, order: { position: 'ASC', id: 'ASC' } }))
  const paths = pagePaths(pages)
  const newest = await newestVersions(at)
  const live = await liveVersions(at)
  return pages.map((page) => summarize(page, paths[page.id]!, newest.get(page.id)!, live.get(page.id)))
}

/** A page with its newest version. */
export async function openPage(at: SiteData, pageId: string): Promise<PageDocument> {
  const page = await findPageRow(at, pageId)
  const newest = await findNewest(at, pageId)
  const path = page.address ?? (await binnedPath(at, page))
  const summary = summarize(page, path, newest, await liveVersionOf(at, pageId))
  return { summary, document: readDocument(newest) }
}

/** The same, with what is needed to show it. */
export async function openForEditing(at: SiteData, pageId: string): Promise<OpenedPage> {
  const opened = await openPage(at, pageId)
  return { ...opened, around: await aroundPage(at, opened.summary) }
}

/** The address that a page in the bin had, or would have. */
async function binnedPath(at: SiteData, page: PageRow): Promise<string> {
  const all = await at.manager.find(PageEntity, { where: { siteId: at.siteId } })
  return pagePaths(all)[page.id]!
}

/** Versions of a page, newest first, without their documents: the newest, or those before one. */
export async function listPageVersions(
  at: SiteData,
  pageId: string,
  before?: number,
): Promise<VersionInfo[]> {
  await findPageRow(at, pageId)
  return listVersions(at, pageId, before)
}

/** The document of one version. */
export async function openVersion(at: SiteData, pageId: string, number: number): Promise<Page> {
  await findPageRow(at, pageId)
  return readDocument(await findVersion(at, pageId, number))
}

/** Adds the next version of a page, and brings what lists show of it up to it. */
export async function insertPageVersion(
  at: SiteChange,
  locked: LockedDocument,
  { document, by, saveId }: NextVersion,
): Promise<void> {
  await insertVersion(at, locked, { document, by, saveId })
  at.changedPages.add(locked.row.id)
  await at.manager.update(PageEntity, { id: locked.row.id, siteId: at.siteId }, listed(document))
}

/** What the row of a page repeats of its newest version, so that lists need not read documents. */
export function listed(
  document: Page,
): Pick<PageRow, 'title' | 'description' | 'inNavigation' | 'more' | 'words'> {
  const settings = settingsOf(document)
  const { title, description, inNavigation } = settings
  const words = textOf(document, defaultRegistry)
  return { title: title.trim(), description, inNavigation, more: moreOf(settings), words }
}

function moreOf({ navigationLabel, theme, isListed, sharePicture }: PageMore): PageMore {
  return { navigationLabel, theme, isListed, sharePicture }
}

/**
 * Changes settings of a page as its next version; what is not given stays. Refuses, with `stale-save`, a change of a
 * value that is no longer what the sender saw (`was`). Gives whether there is a new version.
 */
export async function changeSettings(
  at: SiteChange,
  pageId: string,
  { title, description, inNavigation, more, was }: PageSettingsRequest,
  by: Author,
): Promise<boolean> {
  const locked = await lockDocument(at, pageId)
  await findPageRow(at, pageId)
  const { newest } = locked
  const document = readDocument(newest)
  const now = settingsOf(document)
  refuseStale({
    now: { ...now },
    was: { ...was },
    wanted: { title, description, inNavigation, ...more },
    by: newest.savedBy,
    current: versionInfo(newest),
  })
  const next = withSettings(document, {
    ...(title === undefined ? {} : { title: checkedTitle(title) }),
    ...(description === undefined ? {} : { description: checkedDescription(description) }),
    ...(inNavigation === undefined ? {} : { inNavigation }),
    ...(more === undefined ? {} : checkedMore({ ...moreOf(now), ...more })),
  })
  if (sameJson(settingsOf(next) as unknown as JsonObject, now as unknown as JsonObject)) return false
  await insertPageVersion(at, locked, { document: next, by })
  return true
}

/** Empty is allowed: a page without a description is a problem that is listed, not one that keeps from saving. */
function checkedDescription(description: string): string {
  const trimmed = oneLine(description)
  if (trimmed.length > LONGEST_DESCRIPTION) {
    throw new Refused(
      'not-valid',
      `A description has at most ${LONGEST_DESCRIPTION} characters. Nothing was changed.`,
      {
        problems: [
          { pointer: '/description', message: `must have at most ${LONGEST_DESCRIPTION} characters` },
        ],
      },
    )
  }
  return trimmed
}

function oneLine(words: string): string {
  return words.replace(/[\u0000-\u001f\u007f]+/g, ' ').trim()
}

/** A title that a page can have, on one line. Refuses one that is empty or too long. */
export function checkedTitle(title: string): string {
  const trimmed = oneLine(title)
  if (trimmed === '' || trimmed.length > LONGEST_TITLE) {
    throw new Refused('not-valid', `A title has 1 to ${LONGEST_TITLE} characters. Nothing was changed.`, {
      problems: [{ pointer: '/title', message: `must have 1 to ${LONGEST_TITLE} characters` }],
    })
  }
  return trimmed
}

/** As there is room for in a menu. */
const LONGEST_LABEL = 80

function checkedMore(more: PageMore): PageMore {
  const navigationLabel = oneLine(more.navigationLabel)
  if (navigationLabel.length > LONGEST_LABEL) {
    const message = `can have at most ${LONGEST_LABEL} characters`
    throw new Refused('not-valid', `The navigation label ${message}. Nothing was changed.`, {
      problems: [{ pointer: '/more/navigationLabel', message }],
    })
  }
  return { ...more, navigationLabel }
}

/** The row of a page; refuses an id that no page of the site has. */
export async function findPageRow(at: SiteData, pageId: string): Promise<PageRow> {
  const page = await at.manager.findOneBy(PageEntity, { id: pageId, siteId: at.siteId })
  if (!page) throw noDocument()
  return page
}
