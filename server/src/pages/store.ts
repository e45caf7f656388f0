import { IsNull, type EntityManager } from 'typeorm'
import {
  defaultRegistry,
  LONGEST_DESCRIPTION,
  LONGEST_TITLE,
  migratePage,
  PAGE_FORMAT,
  sameJson,
  settingsOf,
  textOf,
  validatePage,
  withSettings,
  type JsonObject,
  type Page,
  type PageDocument,
  type PageMore,
  type PageSettingsRequest,
  type PageSummary,
  type VersionInfo,
} from '@gullyline/core'
import { PageEntity, VersionEntity, type PageRow, type VersionRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { refuseStale } from '../http/refuse-stale.ts'
import { asTree, pagePaths, summarize } from './tree.ts'

/** All pages of a site in the order of the tree: by parent, then by position. */
export async function listPages(manager: EntityManager, siteId: string): Promise<PageSummary[]> {
  const where = { siteId, binnedAt: IsNull() }
  const pages = asTree(await manager.find(PageEntity, { where, order: { position: 'ASC' } }))
  const paths = pagePaths(pages)
  const saved = await newestVersions(manager, siteId)
  return pages.map((page) => summarize(page, paths[page.id]!, saved.get(page.id)!))
}

async function newestVersions(
  manager: EntityManager,
  siteId: string,
): Promise<Map<string, Pick<VersionRow, 'savedAt' | 'savedBy'>>> {
  const rows = await manager
    .createQueryBuilder(VersionEntity, 'v')
    .select(['v.pageId', 'v.number', 'v.savedAt', 'v.savedBy'])
    .innerJoin(PageEntity.options.name, 'p', 'p.id = v.page_id AND p.version = v.number')
    .where('p.site_id = :siteId', { siteId })
    .getMany()
  return new Map(rows.map((row) => [row.pageId, row]))
}

/** A page with its newest version. */
export async function openPage(manager: EntityManager, pageId: string): Promise<PageDocument> {
  const page = await findPageRow(manager, pageId)
  const version = await findVersion(manager, pageId, page.version)
  return {
    summary: summarize(page, page.address ?? (await binnedPath(manager, page)), version),
    document: readDocument(version),
  }
}

/** The address that a page in the bin had, or would have. */
async function binnedPath(manager: EntityManager, page: PageRow): Promise<string> {
  const all = await manager.find(PageEntity, { where: { siteId: page.siteId } })
  return pagePaths(all)[page.id]!
}

/** The document of a version, brought up to the format of today. Refuses one of a format that is not known yet. */
export function readDocument({ document }: Pick<VersionRow, 'document'>): Page {
  const page = migratePage(document) as Page
  if (page.format === PAGE_FORMAT) return page
  throw new Refused(
    'not-valid',
    'This page was saved by a newer version of Gullyline and can’t be opened by this one. Nothing was changed; start the newer version.',
  )
}

/** All versions of a page, newest first, without their documents. */
export async function listVersions(manager: EntityManager, pageId: string): Promise<VersionInfo[]> {
  await findPageRow(manager, pageId)
  const rows = await manager.find(VersionEntity, {
    where: { pageId },
    select: { pageId: true, number: true, savedAt: true, savedBy: true, saveId: true },
    order: { number: 'DESC' },
  })
  return rows.map(versionInfo)
}

/** The document of one version. */
export async function openVersion(manager: EntityManager, pageId: string, number: number): Promise<Page> {
  await findPageRow(manager, pageId)
  return readDocument(await findVersion(manager, pageId, number))
}

/**
 * Saves a document as the page's next version, when `base` still is its newest. Otherwise refuses with `stale-save`,
 * which names the newest version, and changes nothing. The same save sent twice, as after an answer that was lost, is
 * saved once.
 */
export async function savePage(manager: EntityManager, pageId: string, save: Save): Promise<void> {
  const problems = validatePage(save.document, defaultRegistry)
  if (problems.length > 0) {
    throw new Refused(
      'not-valid',
      'The page could not be saved, because it is not a valid page. Your edits are kept in this tab.',
      { problems },
    )
  }
  const page = await lockPage(manager, pageId)
  if (page.binnedAt !== null)
    throw new Refused(
      'page-deleted',
      'This page was deleted meanwhile, so nothing was saved. Your edits are kept: restore the page, then save again.',
    )
  if (page.version !== save.base) {
    const current = versionInfo(await findVersion(manager, pageId, page.version))
    if (save.saveId !== undefined && current.saveId === save.saveId) return
    throw new Refused(
      'stale-save',
      `${current.savedBy} saved this page after you opened it. Nothing was overwritten, and your edits are kept.`,
      { current },
    )
  }
  await insertVersion(manager, pageId, { ...save, document: save.document as Page })
}

interface Save {
  readonly base: number
  readonly document: unknown
  readonly savedBy: string
  /** Drawn by the sender, once for each save. */
  readonly saveId?: string | undefined
}

/** The row of a page, locked until the transaction ends: of two saves at once, the second sees what the first saved. */
async function lockPage(manager: EntityManager, pageId: string): Promise<PageRow> {
  const page = await manager.findOne(PageEntity, {
    where: { id: pageId },
    lock: { mode: 'pessimistic_write' },
  })
  if (!page) throw new Refused('not-found', 'There is no such page. It may have been deleted.')
  return page
}

/** Adds the version after `base`, and brings what lists show of the page up to it. */
export async function insertVersion(
  manager: EntityManager,
  pageId: string,
  { base, document, savedBy, saveId }: Save & { readonly document: Page },
): Promise<void> {
  await manager.insert(VersionEntity, {
    pageId,
    number: base + 1,
    document,
    savedAt: new Date(),
    savedBy: savedBy.slice(0, 100),
    saveId: saveId ?? null,
  })
  await manager.update(PageEntity, { id: pageId }, { version: base + 1, ...listed(document) })
}

/** What the row of a page repeats of its newest version, so that lists need not read documents. */
export function listed(
  document: Page,
): Pick<PageRow, 'title' | 'description' | 'inNavigation' | 'more' | 'words'> {
  const { title, description, inNavigation, ...more } = settingsOf(document)
  const words = textOf(document, defaultRegistry)
  return { title: title.trim(), description, inNavigation, more, words }
}

/**
 * Changes settings of a page as its next version; what is not given stays. Refuses, with `stale-save`, a change of a
 * value that is no longer what the sender saw (`was`). Gives whether there is a new version.
 */
export async function changeSettings(
  manager: EntityManager,
  pageId: string,
  { title, description, inNavigation, more, was }: PageSettingsRequest,
  savedBy: string,
): Promise<boolean> {
  const page = await lockPage(manager, pageId)
  const newest = await findVersion(manager, pageId, page.version)
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
    ...(more === undefined ? {} : checkedMore({ ...(page.more as PageMore), ...more })),
  })
  if (sameJson(settingsOf(next) as unknown as JsonObject, now as unknown as JsonObject)) return false
  await insertVersion(manager, pageId, { base: page.version, document: next, savedBy })
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

/** The settings that a page has where nothing else is set. */
const PLAIN_MORE: PageMore = { navigationLabel: '', theme: null, isListed: true, sharePicture: null }

const NAMES_NULLABLE = ['theme', 'sharePicture'] as const

function checkedMore(more: PageMore): PageMore {
  const unknown = Object.keys(more).find((key) => !Object.hasOwn(PLAIN_MORE, key))
  const label = typeof more.navigationLabel === 'string' ? oneLine(more.navigationLabel) : undefined
  const names = NAMES_NULLABLE.every(
    (key) => more[key] === null || (typeof more[key] === 'string' && more[key].length <= 32),
  )
  const isValid = unknown === undefined && typeof more.isListed === 'boolean' && names
  if (!isValid || label === undefined || label.length > 80) {
    throw new Refused('not-valid', 'One of the settings of the page is not valid. Nothing was changed.', {
      problems: [{ pointer: unknown ? `/more/${unknown}` : '/more', message: 'is not a setting of a page' }],
    })
  }
  return { ...more, navigationLabel: label }
}

/** The row of a page; refuses an id that does not exist. */
export async function findPageRow(manager: EntityManager, pageId: string): Promise<PageRow> {
  const page = await manager.findOneBy(PageEntity, { id: pageId })
  if (!page) throw new Refused('not-found', 'There is no such page. It may have been deleted.')
  return page
}

/** A version of a page; refuses a number that does not exist. */
export async function findVersion(
  manager: EntityManager,
  pageId: string,
  number: number,
): Promise<VersionRow> {
  const version = await manager.findOneBy(VersionEntity, { pageId, number })
  if (!version) throw new Refused('not-found', `This page has no version ${number}.`)
  return version
}

/** So many versions are read with one query. */
const READ_AT_ONCE = 20

/**
 * Reads versions of several pages, and returns what `read` makes of each, by the id of its page: the rows themselves are
 * let go of. Refuses a number that does not exist.
 */
export async function findVersions<T>(
  manager: EntityManager,
  wanted: readonly { readonly pageId: string; readonly number: number }[],
  read: (row: VersionRow) => T,
): Promise<Map<string, T>> {
  const found = new Map<string, T>()
  for (let from = 0; from < wanted.length; from += READ_AT_ONCE) {
    const where = wanted.slice(from, from + READ_AT_ONCE).map(({ pageId, number }) => ({ pageId, number }))
    for (const row of await manager.find(VersionEntity, { where })) found.set(row.pageId, read(row))
  }
  for (const { pageId, number } of wanted)
    if (!found.has(pageId)) throw new Refused('not-found', `This page has no version ${number}.`)
  return found
}

function versionInfo(row: VersionRow): VersionInfo {
  return {
    number: row.number,
    savedAt: row.savedAt.toISOString(),
    savedBy: row.savedBy,
    ...(row.saveId === null ? {} : { saveId: row.saveId }),
  }
}
