/** Where a value comes from, in words: another setting, what stands around the block, the page's theme, or the kind. */
import {
  getKind,
  getNode,
  surfaceAround,
  themedLook,
  unsetOrigin,
  type FieldSchema,
  type NodeId,
  type Page,
  type PageNode,
  type Registry,
  type SizeKey,
} from '@gullyline/core'
import type { SiteView } from '../session/site-view.ts'
import { choiceOf, optionsOf } from './field-control.tsx'
import { ownWords } from './own-select.tsx'

/** For a value that is not set, as the end of a sentence: "Headline, by level 2". */
export function unsetWords(node: PageNode, field: FieldSchema, size: SizeKey, registry: Registry): string {
  const origin = unsetOrigin(node, field, size, registry)
  if (origin.from === 'kind') return 'default'
  const by = `${origin.field.title.toLowerCase()} ${wordFor(origin.field, choiceOf(origin.value))}`
  return `${wordFor(field, choiceOf(origin.gives))}, by ${by}`
}

/** For a surface that is not set: "Night, as the section around it". */
export function surfaceAroundWords(page: Page, id: NodeId, view: SiteView, registry: Registry): string {
  const look = themedLook(view.site.look, view.summary.more.theme)
  const around = surfaceAround(page, id, look)
  const title = look.surfaces[around.surface]?.title ?? ownWords(around.surface)
  if (around.from === 'block')
    return `${title}, as the ${getKind(registry, getNode(page, around.id).kind).title.toLowerCase()} around it`
  const theme = themeFor(around.surface, view)
  return theme === undefined ? `${title}, as the page` : `${title}, as the page in the theme ${theme}`
}

/** The title of the page's theme where it is the theme that says how a surface looks, and not the site's look. */
export function themeFor(surface: string, { site, summary }: SiteView): string | undefined {
  const { theme } = summary.more
  const found = theme === null || theme === undefined ? undefined : site.look.themes?.[theme]
  return found && Object.hasOwn(found.surfaces, surface) ? found.title : undefined
}

function wordFor(field: FieldSchema, value: string): string {
  return optionsOf(field)[value] ?? (/^\d+px$/.test(value) ? ownWords(value) : value)
}
