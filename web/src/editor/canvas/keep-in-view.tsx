import { useEffect, useLayoutEffect, useRef } from 'react'
import { useEditor, useStore } from '../session/editor-store.ts'
import { elementsOf } from './boxes.ts'
import { shownId } from './shown-ids.ts'

interface KeepInViewProps {
  readonly inner: Document
  /** The width of the page in px. */
  readonly width: number
  readonly panTo: (from: number, to: number) => void
}

/** Brings what is selected into view when it was selected from elsewhere, and keeps it there when the page takes another width. */
export function KeepInView({ inner, width, panTo }: KeepInViewProps) {
  const store = useStore()
  const selection = useEditor((state) => state.selection)
  /** Where it begins, as a share of the frame's height; undefined where the person has scrolled it out of sight. */
  const seenRef = useRef<number>(undefined)
  const shownAt = useRef(width)
  useLayoutEffect(() => {
    // What is edited, or selected, moves nothing.
    if (shownAt.current === width) return
    shownAt.current = width
    const element = selection && elementsOf(inner, shownId(store, selection))[0]
    const view = inner.defaultView
    if (!element || !view || seenRef.current === undefined) return
    const { top, height } = element.getBoundingClientRect()
    const wanted = Math.min(seenRef.current * view.innerHeight, Math.max(0, view.innerHeight - height))
    view.scrollTo({ top: view.scrollY + top - wanted, behavior: 'instant' })
  }, [store, inner, selection, width])
  // Kept in a ref, so that a change of the canvas's size does not run the effect and undo the person's scrolling.
  const lastPan = useRef(panTo)
  useLayoutEffect(() => void (lastPan.current = panTo))
  useEffect(() => {
    if (selection === undefined) return
    const [element] = elementsOf(inner, shownId(store, selection))
    const view = inner.defaultView
    if (!element || !view) return
    reveal(element)
    // What the pointer is on is in view, and a second press must find it where the first one did.
    if (element.matches(':hover')) return
    const rect = element.getBoundingClientRect()
    lastPan.current(rect.left, rect.right)
    if (rect.top >= 0 && rect.bottom <= view.innerHeight) return
    // To the middle, or its beginning where there is more of it than room.
    view.scrollTo({ top: view.scrollY + rect.top - Math.max(40, (view.innerHeight - rect.height) / 2) })
  }, [store, inner, selection])
  useEffect(() => {
    const view = inner.defaultView
    if (selection === undefined || !view) return undefined
    const note = (): void => {
      const rect = elementsOf(inner, shownId(store, selection))[0]?.getBoundingClientRect()
      const isSeen = rect && rect.bottom > 0 && rect.top < view.innerHeight
      seenRef.current = isSeen ? Math.max(0, rect.top) / view.innerHeight : undefined
    }
    note()
    view.addEventListener('scroll', note, { passive: true })
    return () => view.removeEventListener('scroll', note)
  }, [store, inner, selection])
  return null
}

/** Makes an element seen: opens the folded parts that it stands in, and scrolls a list that goes sideways to it. */
function reveal(element: Element): void {
  for (let at = element.closest('details'); at; at = at.parentElement?.closest('details') ?? null)
    at.open = true
  const list = element.parentElement?.closest('ul')
  if (list && list.scrollWidth > list.clientWidth)
    element.scrollIntoView({ block: 'nearest', inline: 'nearest' })
}
