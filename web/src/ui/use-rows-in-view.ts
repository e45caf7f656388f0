import { useCallback, useEffect, useState } from 'react'

/** Rows drawn beyond what is seen on each side, so that a quick scroll finds no gap. */
const BEYOND = 12

interface RowsInView {
  /** For the element that scrolls. */
  readonly setScroller: (element: HTMLElement | null) => void
  readonly first: number
  /** One after the last. */
  readonly end: number
  /** Scrolls as little as it takes to show a row. */
  readonly show: (index: number) => void
}

/** Of a list of rows of one height, those that can be seen: a list of thousands costs what a screenful costs. */
export function useRowsInView(count: number, rowHeight: number): RowsInView {
  const [element, setElement] = useState<HTMLElement | null>(null)
  const [seen, setSeen] = useState({ first: 0, end: 40 })
  useEffect(() => {
    if (!element) return
    const look = (): void => {
      const first = Math.floor(element.scrollTop / rowHeight)
      const end = Math.ceil((element.scrollTop + element.clientHeight) / rowHeight)
      setSeen((before) => (before.first === first && before.end === end ? before : { first, end }))
    }
    look()
    const size = new ResizeObserver(look)
    size.observe(element)
    element.addEventListener('scroll', look, { passive: true })
    return () => {
      size.disconnect()
      element.removeEventListener('scroll', look)
    }
  }, [element, rowHeight])
  const show = useCallback(
    (index: number): void => {
      if (!element) return
      const top = index * rowHeight
      if (top < element.scrollTop) element.scrollTo({ top })
      else if (top + rowHeight > element.scrollTop + element.clientHeight)
        element.scrollTo({ top: top + rowHeight - element.clientHeight })
    },
    [element, rowHeight],
  )
  return {
    setScroller: setElement,
    first: Math.max(0, Math.min(seen.first - BEYOND, count - 1)),
    end: Math.min(count, seen.end + BEYOND),
    show,
  }
}
