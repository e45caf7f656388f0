/** Parts as people tell them apart: patterns, shared sections, components and page templates. */
import { isComponent, type PartType, type SavedPart } from '@gullyline/core'

/** What people call a part by what it does. */
export type Sort = PartType | 'component'
/** Which of them are listed. */
export type Shown = Sort | 'unused' | 'deleted'

export const SORTS = ['pattern', 'shared', 'component', 'template'] as const satisfies readonly Sort[]
export const WORDS: Readonly<Record<Sort, { readonly one: string; readonly several: string }>> = {
  pattern: { one: 'pattern', several: 'Patterns' },
  shared: { one: 'shared section', several: 'Shared sections' },
  component: { one: 'component', several: 'Components' },
  template: { one: 'page template', several: 'Page templates' },
}

export function sortOf({ type, document }: Pick<SavedPart, 'type' | 'document'>): Sort {
  return type === 'shared' && isComponent(document) ? 'component' : type
}

export function isShownAs(part: SavedPart, which: Shown): boolean {
  if (which === 'deleted') return part.binnedAt !== null
  if (part.binnedAt !== null) return false
  // Copies of a pattern know nothing of it, so that none can be told to be unused.
  if (which === 'unused') return part.type === 'shared' && part.reach.pages === 0
  return sortOf(part) === which
}
