import { useMemo } from 'react'
import type { PageSummary, PlacePageRequest, SiteInfo } from '@gullyline/core'
import { exportPackage } from '../exchange/export-package.ts'
import { messageOf } from '../ui/message-of.ts'
import type { Question } from './page-questions.tsx'
import type { PageAct, RowActs } from './page-row.tsx'
import { dropPlace, stepPlace, withSubPages, type MoveDirection } from './tree-moves.ts'

const MOVES: readonly MoveDirection[] = ['up', 'down', 'in', 'out']
interface ActsInput {
  readonly site: SiteInfo
  readonly pages: readonly PageSummary[]
  readonly mayChange: boolean
  readonly place: (page: PageSummary, to: PlacePageRequest) => Promise<void>
  readonly setQuestion: (question: Question) => void
  readonly setTold: (told: { readonly words: string; readonly isTrouble: boolean }) => void
  readonly setSelected: (change: (before: ReadonlySet<string>) => ReadonlySet<string>) => void
  readonly setCollapsed: (id: string, isCollapsed: boolean) => void
  readonly setDragging: (id: string | undefined) => void
  readonly setCurrentId: (id: string) => void
}

/** What rows and the preview can do. The same object as long as the pages are, so that no row is drawn for nothing. */
export function useRowActs(input: ActsInput): RowActs {
  const { site, pages, mayChange, place, setQuestion, setTold, setSelected, setCollapsed, setDragging } =
    input
  const { setCurrentId } = input
  const { homePageId, notFoundPageId } = site
  return useMemo((): RowActs => {
    const fixed = new Set([homePageId, notFoundPageId])
    return {
      can: (page) => {
        const live: readonly PageAct[] = page.liveSince === null || fixed.has(page.id) ? [] : ['unpublish']
        const shown: readonly PageAct[] = page.state === 'live' ? live : [...live, 'publish']
        if (!mayChange) return new Set(shown)
        const moves = MOVES.filter((direction) => stepPlace(pages, page, direction, homePageId))
        const more: readonly PageAct[] = fixed.has(page.id) ? [] : ['add', 'delete']
        return new Set<PageAct>([
          ...shown,
          'rename',
          'copy',
          'export',
          ...(fixed.has(page.id) ? [] : moves),
          ...more,
        ])
      },
      act: (page, act) => {
        if (act === 'add') return setQuestion({ act, parentId: page.id })
        if (act === 'rename' || act === 'copy') return setQuestion({ act, page })
        if (act === 'delete' || act === 'publish' || act === 'unpublish')
          return setQuestion({ act, pages: [page] })
        if (act === 'export') {
          exportPackage({ pages: [page.id], withSubPages: true }, page.title).then(
            (words) => setTold({ words, isTrouble: false }),
            (error: unknown) => setTold({ words: messageOf(error), isTrouble: true }),
          )
          return
        }
        const to = fixed.has(page.id) ? undefined : stepPlace(pages, page, act, homePageId)
        if (to) void place(page, to)
        else setTold({ words: `${page.title} can’t be moved further in that direction`, isTrouble: true })
      },
      mayLand: (movingId, on) => !withSubPages(pages, movingId).has(on.id),
      land: (movingId, on, where) => {
        const moved = pages.find((one) => one.id === movingId)
        // Nothing stands under the home page: a page that is dropped into it goes after it.
        if (moved) void place(moved, dropPlace(pages, movingId, on, fixed.has(on.id) ? 'after' : where))
      },
      drag: setDragging,
      show: setCurrentId,
      select: (id, isSelected) =>
        setSelected((before) => {
          const next = new Set(before)
          if (isSelected) next.add(id)
          else next.delete(id)
          return next
        }),
      expand: (id, isExpanded) => setCollapsed(id, !isExpanded),
    }
  }, [
    homePageId,
    notFoundPageId,
    pages,
    mayChange,
    place,
    setQuestion,
    setTold,
    setSelected,
    setCollapsed,
    setDragging,
    setCurrentId,
  ])
}
