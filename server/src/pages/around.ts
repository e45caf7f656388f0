/** Reads the pages, pictures and files of a site that the canvas needs to draw one page. */
import { In } from 'typeorm'
import type { NavigationItem, PageAround, UsedThing } from '@gullyline/core'
import { PageEntity } from '../db/rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { findSite } from '../documents/site-row.ts'
import { linkedParts } from '../documents/linked-parts.ts'
import { thingsUsedBy } from '../documents/uses.ts'
import { filesOf, picturesOf } from '../media/store.ts'
import { listedPages } from './page-list.ts'

/**
 * Returns what the newest versions of a page, the header, the footer and the parts that they show refer to, those parts, the
 * pages of the navigation, and those that the page stands under.
 */
export async function aroundPage(
  at: SiteData,
  page: { readonly id: string; readonly path: string },
): Promise<PageAround> {
  const { headerId, footerId, navigation } = await findSite(at)
  const documents = [page.id, headerId, footerId]
  const parts = await linkedParts(at, documents)
  const used = await thingsUsedBy(at, [...documents, ...Object.keys(parts)])
  const idsOf = (thing: UsedThing): string[] =>
    used.filter((one) => one.thing === thing).map(({ target }) => target)
  const under = idsOf('inside').map((id) => id || page.id)
  const named = (navigation as NavigationItem[]).flatMap((item) => ('page' in item ? [item.page] : []))
  const ids = new Set([page.id, ...idsOf('page'), ...under, ...named])
  for (const where of [
    { inNavigation: true },
    { address: In(pathsAbove(page.path)) },
    { parentId: In(under) },
  ]) {
    const rows = await at.manager.find(PageEntity, {
      select: { id: true },
      where: { siteId: at.siteId, ...where },
    })
    for (const { id } of rows) ids.add(id)
  }
  return {
    pages: await listedPages(at, [...ids]),
    parts,
    pictures: await picturesOf(at, idsOf('picture')),
    files: await filesOf(at, idsOf('file')),
  }
}

/** The addresses that an address stands under: of "/a/b/", "/" and "/a/". */
function pathsAbove(path: string): string[] {
  const parts = path.split('/').slice(0, -2)
  return parts.map((_part, i) => `${parts.slice(0, i + 1).join('/')}/`)
}
