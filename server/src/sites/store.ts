import {
  mergeNavigation,
  hrefFault,
  type Look,
  type NavigationItem,
  type SharedSection,
  type SiteInfo,
  type HrefFault,
} from '@gullyline/core'
import { SiteEntity } from '../db/rows.ts'
import { originOf } from '../publish/site-hosts.ts'
import { findSite, lockSite } from '../documents/site-row.ts'
import { liveVersionOf } from '../documents/live.ts'
import { findNewest, readDocument, type Version } from '../documents/versions.ts'
import { Refused } from '../http/errors.ts'
import type { SiteData } from '../db/site-scope.ts'

/** Everything the editor needs to show pages of the site as visitors will see them. */
export async function describeSite(at: SiteData, liveOrigin: string): Promise<SiteInfo> {
  const site = await findSite(at)
  const { id, name, language } = site
  const header = await findNewest(at, site.headerId)
  const footer = await findNewest(at, site.footerId)
  return {
    id,
    name,
    language,
    look: site.look as Look,
    navigation: site.navigation as NavigationItem[],
    homePageId: site.homePageId,
    notFoundPageId: site.notFoundPageId,
    icon: site.icon,
    sharePicture: site.sharePicture,
    navigationLimit: site.navigationLimit,
    header: readDocument(header),
    footer: readDocument(footer),
    shared: {
      header: await sharedSection(at, header),
      footer: await sharedSection(at, footer),
    },
    host: site.host,
    liveOrigin: originOf(site.host, liveOrigin),
  }
}

async function sharedSection(
  at: SiteData,
  { documentId: id, number: version }: Version,
): Promise<SharedSection> {
  return { id, version, liveVersion: (await liveVersionOf(at, id))?.version ?? null }
}

const MOST_LINES = 100

/**
 * Saves the order of the navigation and its lines that are no pages. What somebody else changed since `was` is merged,
 * line by line. Refuses lines that lead nowhere or have no words.
 */
export async function keepNavigation(
  at: SiteData,
  { items, was }: { readonly items: readonly unknown[]; readonly was?: readonly unknown[] },
): Promise<void> {
  assertLines(items)
  assertLines(was ?? [])
  const site = await lockSite(at)
  const now = site.navigation as NavigationItem[]
  const merged = mergeNavigation({
    base: (was ?? now) as readonly NavigationItem[],
    ours: items as readonly NavigationItem[],
    theirs: now,
  })
  assertLines(merged)
  await at.manager.update(SiteEntity, { id: at.siteId }, { navigation: merged })
}

/** Refuses lines of a navigation that lead nowhere or have no words. */
export function assertLines(items: readonly unknown[]): void {
  const problems = items.slice(0, MOST_LINES + 1).flatMap((item, i) => {
    const fault = lineFault(item)
    return fault ? [{ pointer: `/items/${i}`, message: fault }] : []
  })
  if (problems.length > 0 || items.length > MOST_LINES)
    throw new Refused('not-valid', 'The navigation has a line that can’t be saved. Nothing was changed.', {
      problems,
    })
}

const HREF_FAULTS: Readonly<Record<HrefFault, string>> = {
  'not-allowed': 'can’t lead to this kind of address',
  incomplete: 'has an incomplete address: put https:// before it',
  'not-an-address': 'has an address that no browser can read',
}

function lineFault(item: unknown): string | undefined {
  if (typeof item !== 'object' || item === null) return 'must be a line of the navigation'
  const { page, anchor, href, label, ...more } = item as Record<string, unknown>
  const isWords = typeof label === 'string' && label.trim() !== '' && label.length <= 80
  if (Object.keys(more).length > 0) return 'has a field that no line has'
  if (label !== undefined && !isWords) return 'must have words of 1 to 80 characters'
  if (typeof href === 'string') {
    if (page !== undefined || anchor !== undefined) return 'leads to a page and elsewhere'
    if (!isWords) return 'must have words'
    const fault = href.length > 2000 ? 'not-allowed' : hrefFault(href)
    return fault && HREF_FAULTS[fault]
  }
  if (typeof page !== 'string' || page.length > 24) return 'must lead to a page or an address'
  const isPlace =
    anchor === undefined || (typeof anchor === 'string' && /^[a-z][a-z0-9-]{0,63}$/.test(anchor))
  return isPlace ? undefined : 'leads to a place whose name can’t be one'
}
