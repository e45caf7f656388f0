import { useRowsInView } from '../ui/use-rows-in-view.ts'
import type { ListedPage } from './page-list.ts'
import { ROW_HEIGHT, type RowActs } from './page-row.tsx'
import type { MoveDirection } from './tree-moves.ts'

interface ListInput {
  readonly acts: RowActs
  readonly currentId: string | undefined
  readonly selected: ReadonlySet<string>
  readonly mayChange: boolean
}

const ALT_KEYS: Readonly<Record<string, MoveDirection>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  'Shift+ArrowRight': 'in',
  'Shift+ArrowLeft': 'out',
}

/** The rows that can be seen, and going from one to the next by keys (ARIA Authoring Practices, "Treegrid"). */
export function usePageRows(
  listed: readonly ListedPage[],
  { acts, currentId, selected, mayChange }: ListInput,
) {
  const inView = useRowsInView(listed.length, ROW_HEIGHT)
  const focusRow = (index: number): void => {
    const found = listed[index]
    if (!found) return
    acts.show(found.page.id)
    inView.show(index)
    const row = rowOf(found.page.id)
    if (row) row.focus()
    // Once it is drawn, where it was not seen before.
    else requestAnimationFrame(() => requestAnimationFrame(() => rowOf(found.page.id)?.focus()))
  }
  const onKeyDown = (event: React.KeyboardEvent): void => {
    const at = listed.findIndex(({ page }) => page.id === currentId)
    const found = listed[at]
    const isRow = event.target instanceof HTMLElement && event.target.role === 'row'
    if (!found) return
    const handled = (): void => {
      event.preventDefault()
      event.stopPropagation()
    }
    if (event.altKey) {
      const direction = ALT_KEYS[`${event.shiftKey ? 'Shift+' : ''}${event.key}`]
      if (!direction || !mayChange) return
      handled()
      return acts.act(found.page, direction)
    }
    if (!isRow || event.ctrlKey || event.metaKey) return
    const { page, depth, isExpanded } = found
    const steps: Readonly<Record<string, number>> = {
      ArrowDown: Math.min(at + 1, listed.length - 1),
      ArrowUp: Math.max(at - 1, 0),
      Home: 0,
      End: listed.length - 1,
    }
    if (event.key in steps) {
      handled()
      return focusRow(steps[event.key]!)
    }
    if (event.key === 'ArrowRight' && isExpanded !== undefined) {
      handled()
      return isExpanded ? focusRow(at + 1) : acts.expand(page.id, true)
    }
    if (event.key === 'ArrowLeft') {
      handled()
      if (isExpanded) return acts.expand(page.id, false)
      return focusRow(listed.findLastIndex((one, i) => i < at && one.depth < depth))
    }
    if (event.key === ' ' && mayChange) {
      handled()
      return acts.select(page.id, !selected.has(page.id))
    }
    if (event.key === 'Delete' && acts.can(page).has('delete')) {
      handled()
      return acts.act(page, 'delete')
    }
    if (event.key === 'Enter') {
      handled()
      rowOf(page.id)?.querySelector('a')?.click()
    }
  }
  const rows = listed.slice(inView.first, inView.end).map((one, i) => ({ ...one, index: inView.first + i }))
  return { setScroller: inView.setScroller, height: listed.length * ROW_HEIGHT, rows, onKeyDown }
}

function rowOf(pageId: string): HTMLElement | null {
  return document.querySelector<HTMLElement>(`[data-page="${pageId}"]`)
}
