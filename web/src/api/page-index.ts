/** The pages of the site as far as they are read: the first screen of them, then the rest, then what changes. */
import type { PageListPart, PageSummary } from '@gullyline/core'

export interface PageIndex {
  readonly pages: readonly PageSummary[]
  /** Names the last change that is known; see `PageListPart`. */
  readonly mark: string
  /** What the next part begins after; null once all are read. */
  readonly next: string | null
}

/** The list as its first part begins it. */
export function begunWith({ pages, mark, next }: PageListPart): PageIndex {
  return { pages, mark, next }
}

/** The list with its next part. What changed since its first part is still to be asked for. */
export function withMore(index: PageIndex, { pages, next }: PageListPart): PageIndex {
  return { ...index, pages: replaced(index.pages, pages), next }
}

/** The list with what changed, or as it begins anew; undefined where it then is not what the server has. */
export function withChanges(index: PageIndex, part: PageListPart): PageIndex | undefined {
  if (part.isAnew) return begunWith(part)
  const gone = new Set(part.gone)
  const pages = replaced(index.pages, part.pages).filter(({ id }) => !gone.has(id))
  if (index.next === null && pages.length !== part.total) return undefined
  return { pages, mark: part.mark, next: index.next }
}

/** Pages with others in the places of those of the same ids, and the rest behind them. What is the same stays the same object. */
export function replaced(pages: readonly PageSummary[], by: readonly PageSummary[]): PageSummary[] {
  const others = new Map(by.map((page) => [page.id, page]))
  const kept = pages.map((page) => {
    const other = others.get(page.id)
    others.delete(page.id)
    return other && JSON.stringify(other) !== JSON.stringify(page) ? other : page
  })
  return [...kept, ...others.values()]
}
