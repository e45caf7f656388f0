/** What the things of the reach map are called, and what they are in words. */
import type { PageSummary, SavedPart, ShowerType } from '@gullyline/core'
import { sortOf, WORDS } from '../library/part-sorts.ts'

export interface Named {
  readonly name: string
  /** What it is, as a word. */
  readonly sort: string
}

const EVERYWHERE = { header: 'Header', footer: 'Footer' } as const

/** Gives the name of a document of the site by its id and type. */
export function namesOf(
  parts: readonly SavedPart[],
  pages: readonly PageSummary[],
): (id: string, type: ShowerType) => Named {
  const partById = new Map(parts.map((part) => [part.id, part]))
  const pageById = new Map(pages.map((page) => [page.id, page]))
  return (id, type) => {
    if (type === 'header' || type === 'footer') return { name: EVERYWHERE[type], sort: 'on every page' }
    if (type === 'page') return { name: pageById.get(id)?.title ?? 'A page', sort: 'page' }
    const part = partById.get(id)
    return { name: part?.name ?? 'A part', sort: part ? WORDS[sortOf(part)].one : 'part' }
  }
}
