import {
  expandParts,
  instanceFindings,
  FRAME_NAMES,
  runChecks,
  runSectionChecks,
  settingsOf,
  sharedRoot,
  themedLook,
  type CheckedSite,
  type Finding,
  type Page,
  type Registry,
} from '@gullyline/core'
import type { SiteView } from '../session/site-view.ts'

/** What the checks find on a page and on what it shares with others, as they are. Comes once the page is there, as do the checks themselves. */
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
  const expanded = expandParts(page, registry)
  const frames = FRAME_NAMES.flatMap((name) => sharedRoot(page, name) ?? [])
  const found = [
    ...instanceFindings(page, Object.keys(page.nodes), (id) => ({ nodes: page.nodes, root: id }), registry),
    ...runChecks(expanded, checked, registry),
    ...frames.flatMap((root) => runSectionChecks({ ...expanded, root }, checked, registry)),
  ]
  return [...found.filter(isError), ...found.filter((one) => !isError(one))]
}

function isError({ severity }: Finding): boolean {
  return severity === 'error'
}
