import {
  runChecks,
  settingsOf,
  themedLook,
  type CheckedSite,
  type Finding,
  type Page,
  type Registry,
} from '@gullyline/core'
import type { SiteView } from '../site-view.ts'

/** What the checks find on a page as it is. Comes once the page is there, as do the checks themselves. */
export function findingsOn(
  page: Page,
  { site, pages }: Pick<SiteView, 'site' | 'pages'>,
  registry: Registry,
): readonly Finding[] {
  const checked: CheckedSite = {
    ...settingsOf(page),
    look: themedLook(site.look, settingsOf(page).theme),
    // Places on other pages are not known here; publishing knows them.
    pages: Object.fromEntries(pages.map((one) => [one.id, undefined])),
    pictures: site.pictures,
    files: site.files,
  }
  return runChecks(page, checked, registry)
}
