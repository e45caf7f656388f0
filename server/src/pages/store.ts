import { IsNull, type EntityManager } from 'typeorm'
import {
  defaultRegistry,
  migratePage,
  TEMPLATES,
  validatePage,
  type NewPageRequest,
  type Page,
  type PageDocument,
  type PageMore,
  type PageSettingsRequest,
  type PageSummary,
  type Template,
  type VersionInfo,
} from '@gullyline/core'
import { PageEntity, VersionEntity, type PageRow, type VersionRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import { freeSlug, NEVER_LIVE, pagePaths, slugOf, summarize } from './tree.ts'

const LONGEST_TITLE = 200
const LONGEST_DESCRIPTION = 500

/** All pages of a site in the order of the tree: by parent, then by position. */
export async function listPages(manager: EntityManager, siteId: string): Promise<PageSummary[]> {
  const pages = await manager.find(PageEntity, {
    where: { siteId, binnedAt: IsNull() },
    order: { position: 'ASC' },
  })
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
  const siblings = await manager.find(PageEntity, { where: { siteId: page.siteId } })
  return {
    summary: summarize(page, pagePaths(siblings)[page.id]!, version),
    document: readDocument(version),
  }
}

/** The document of a version, brought up to the format of today. */
export function readDocument({ document }: Pick<VersionRow, 'document'>): Page {
  return migratePage(document) as Page
}

/** All versions of a page, newest first, without their documents. */
export async function listVersions(manager: EntityManager, pageId: string): Promise<VersionInfo[]> {
  await findPageRow(manager, pageId)
  const rows = await manager.find(VersionEntity, {
    where: { pageId },
    select: { pageId: true, number: true, savedAt: true, savedBy: true },
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
 * Keeps a document as the page's next version, when `base` still is its newest. Otherwise refuses with `stale-save`,
 * which names the newest version, and changes nothing.
 */
export async function savePage(
  manager: EntityManager,
  pageId: string,
  save: { readonly base: number; readonly document: unknown; readonly savedBy: string },
): Promise<void> {
  const problems = validatePage(save.document, defaultRegistry)
  if (problems.length > 0) {
    throw new Refused(
      'not-valid',
      'The page could not be saved, because it is not a valid page. Your edits are kept in this tab.',
      { problems },
    )
  }
  // The version is compared and counted up in one statement: of two saves at once, only one can find it unchanged.
  const counted = await manager
    .createQueryBuilder()
    .update(PageEntity)
    .set({ version: () => 'version + 1' })
    .where('id = :pageId AND version = :base', { pageId, base: save.base })
    .execute()
  if (counted.affected !== 1) {
    const page = await findPageRow(manager, pageId)
    const current = versionInfo(await findVersion(manager, pageId, page.version))
    throw new Refused(
      'stale-save',
      `${current.savedBy} saved this page after you opened it. Nothing was overwritten, and your edits are kept.`,
      { current },
    )
  }
  await manager.insert(VersionEntity, {
    pageId,
    number: save.base + 1,
    document: save.document as Page,
    savedAt: new Date(),
    savedBy: save.savedBy.slice(0, 100),
  })
}

/** Adds an empty page as the last one under its parent, with an address made from its title. */
export async function addPage(
  manager: EntityManager,
  siteId: string,
  given: NewPageRequest & { readonly savedBy: string },
): Promise<string> {
  const title = checkedTitle(given.title)
  if (given.parentId !== null && (await findPageRow(manager, given.parentId)).siteId !== siteId) {
    throw new Refused(
      'not-found',
      'The page under which to add this one belongs to another site. Nothing was changed.',
    )
  }
  const template = findTemplate(given.template)
  const pages = await manager.find(PageEntity, { where: { siteId, binnedAt: IsNull() } })
  const siblings = pages.filter((page) => page.parentId === given.parentId)
  const id = newId()
  await manager.insert(PageEntity, {
    id,
    siteId,
    parentId: given.parentId,
    position: Math.max(-1, ...siblings.map((page) => page.position)) + 1,
    title,
    slug: freeSlug(
      slugOf(title),
      siblings.map((page) => page.slug),
    ),
    description: '',
    inNavigation: given.parentId === null,
    version: 1,
    more: PLAIN_MORE,
    binnedAt: null,
    binnedWith: null,
    ...NEVER_LIVE,
  })
  await manager.insert(VersionEntity, {
    pageId: id,
    number: 1,
    document: template.build(defaultRegistry, newId, { title, date: new Date().toISOString().slice(0, 10) }),
    savedAt: new Date(),
    savedBy: given.savedBy.slice(0, 100),
  })
  return id
}

/** Changes what is known of a page beside its document; what is not given stays. Its address stays in any case. */
export async function changeSettings(
  manager: EntityManager,
  pageId: string,
  { title, description, inNavigation, more }: PageSettingsRequest,
): Promise<void> {
  const page = await findPageRow(manager, pageId)
  const changed = {
    ...(title === undefined ? {} : { title: checkedTitle(title) }),
    ...(description === undefined ? {} : { description: checkedDescription(description) }),
    ...(inNavigation === undefined ? {} : { inNavigation }),
    ...(more === undefined ? {} : { more: checkedMore({ ...(page.more as PageMore), ...more }) }),
  }
  if (Object.keys(changed).length > 0) await manager.update(PageEntity, { id: pageId }, changed)
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

function checkedTitle(title: string): string {
  const trimmed = oneLine(title)
  if (trimmed === '' || trimmed.length > LONGEST_TITLE) {
    throw new Refused('not-valid', `A title has 1 to ${LONGEST_TITLE} characters. Nothing was changed.`, {
      problems: [{ pointer: '/title', message: `must have 1 to ${LONGEST_TITLE} characters` }],
    })
  }
  return trimmed
}

function findTemplate(id = 'blank'): Template {
  const template = TEMPLATES.find((one) => one.id === id)
  if (!template)
    throw new Refused('not-found', `There is no template “${id.slice(0, 50)}”. No page was added.`)
  return template
}

/** The settings that a new page begins with. */
export const PLAIN_MORE: PageMore = { navigationLabel: '', theme: null, isListed: true, sharePicture: null }

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
  if (!page) throw new Refused('not-found', 'There is no such page. It may have been removed.')
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

function versionInfo(row: VersionRow): VersionInfo {
  return { number: row.number, savedAt: row.savedAt.toISOString(), savedBy: row.savedBy }
}
