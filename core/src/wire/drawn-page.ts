import type { TreePage } from '../kit/site-context.ts'
import type { NavigationPage } from '../site/navigation.ts'
import type { PageSettings } from '../site/page-settings.ts'
import type { PageSummary } from './wire.ts'

/** A page as those that are edited speak of it, live or not. */
export function drawnPage(page: PageSummary): TreePage & NavigationPage {
  const { id, parentId, path, title, description, inNavigation, more } = page
  return { id, parentId, path, title, description, inNavigation, label: more.navigationLabel || title }
}

/** What lists say of a page, by other settings than those of its newest version. */
export function withSettingsOf(summary: PageSummary, settings: PageSettings): PageSummary {
  const { title, description, inNavigation, ...more } = settings
  return { ...summary, title: title.trim() || summary.title, description, inNavigation, more }
}
