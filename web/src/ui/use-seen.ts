import { useEffect, useState, type RefObject } from 'react'

/** So far beyond the edge of what scrolls it, an element counts as seen: it is there when it is scrolled to. */
const AHEAD = '120px'

/** Whether an element has come into view. Once it has, it stays so. */
export function useSeen(element: RefObject<Element | null>): boolean {
  const [isSeen, setSeen] = useState(false)
  useEffect(() => {
    if (isSeen || !element.current) return
    const observer = new IntersectionObserver(
      (entries) => entries.some(({ isIntersecting }) => isIntersecting) && setSeen(true),
      { rootMargin: AHEAD, scrollMargin: AHEAD },
    )
    observer.observe(element.current)
    return () => observer.disconnect()
  }, [element, isSeen])
  return isSeen
}
