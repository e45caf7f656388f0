/**
 * Settings of a page: title, description and the like. They are fields of the root's content, so that edits, journal,
 * undo, merging and versions hold them as they hold every block.
 */
import { anchor, line, media, toggle, type FieldSchema } from '../kit/fields.ts'
import type { JsonObject } from '../page/json.ts'
import { getNode, type Page } from '../page/page.ts'
import { withNodes } from '../page/with-nodes.ts'

/** What is set for a page beside its title, address and description. */
export interface PageMore {
  /** The navigation label; empty for the title. */
  readonly navigationLabel: string
  /** The name of a theme of the site's look, or null for the look as it is. */
  readonly theme: string | null
  /** Whether search engines may list it. */
  readonly isListed: boolean
  /** A picture of the library that is shown where somebody shares the page, or null. */
  readonly sharePicture: string | null
}

/** What belongs to a page beside its blocks. Its address does not: that is its place in the tree. */
export interface PageSettings extends PageMore {
  /** Shown in browser tabs, search results and lists. Empty while a page has none. */
  readonly title: string
  readonly description: string
  readonly inNavigation: boolean
}

export const LONGEST_TITLE = 200
export const LONGEST_DESCRIPTION = 500
export const LONGEST_NAVIGATION_LABEL = 80

const hidden = (field: FieldSchema): FieldSchema => ({ ...field, hidden: true })

/** The fields of the root's content that hold the settings. Hidden, since the details show them in a way of their own. */
export const SETTING_FIELDS = {
  pageTitle: hidden(line('Title', '', LONGEST_TITLE)),
  description: hidden(line('Description', '', LONGEST_DESCRIPTION)),
  inNavigation: hidden(toggle('Show in navigation', false)),
  navigationLabel: hidden(line('Navigation label', '', LONGEST_NAVIGATION_LABEL)),
  // Which themes there are, the site's look says, so any name is valid here.
  theme: hidden(anchor('Theme')),
  isListed: hidden(toggle('Show in search results', true)),
  sharePicture: hidden(media('Sharing picture')),
} as const satisfies Readonly<Record<string, FieldSchema>>

export type SettingField = keyof typeof SETTING_FIELDS

const known = new WeakMap<JsonObject, PageSettings>()

/** The settings of a page, with the default of each that is not set. The same object for the same content. */
export function settingsOf(page: Page): PageSettings {
  const { content } = getNode(page, page.root)
  let settings = known.get(content)
  if (!settings) {
    settings = readSettings(content)
    known.set(content, settings)
  }
  return settings
}

function readSettings(content: JsonObject): PageSettings {
  const words = (key: SettingField): string => (typeof content[key] === 'string' ? content[key] : '')
  const picture = content.sharePicture as { readonly id?: unknown } | undefined
  return {
    title: words('pageTitle'),
    description: words('description'),
    inNavigation: content.inNavigation === true,
    navigationLabel: words('navigationLabel'),
    theme: words('theme') || null,
    isListed: content.isListed !== false,
    sharePicture: typeof picture?.id === 'string' ? picture.id : null,
  }
}

/** The page with these settings; those that are not given stay. A setting at its default takes no room in the document. */
export function withSettings(page: Page, given: Partial<PageSettings>): Page {
  const settings = { ...settingsOf(page), ...given }
  const root = getNode(page, page.root)
  const content: Record<string, JsonObject[string]> = { ...root.content }
  for (const key of Object.keys(SETTING_FIELDS)) delete content[key]
  if (settings.title !== '') content.pageTitle = settings.title
  if (settings.description !== '') content.description = settings.description
  if (settings.inNavigation) content.inNavigation = true
  if (settings.navigationLabel !== '') content.navigationLabel = settings.navigationLabel
  if (settings.theme !== null) content.theme = settings.theme
  if (!settings.isListed) content.isListed = false
  if (settings.sharePicture !== null) content.sharePicture = { id: settings.sharePicture }
  return { ...page, nodes: withNodes(page.nodes, { [page.root]: { ...root, content } }) }
}
