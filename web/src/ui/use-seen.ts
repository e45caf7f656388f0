import { useEffect, useState, type RefObject } from 'react'
import { whenStill } from './when-still.ts'

/** So far beyond the edge of what scrolls it, an element counts as seen: it is there when it is scrolled to. */
const AHEAD = '120px'

/**
 * Whether an element has come into view, and stayed there until there was time for it. Once it has, it stays so. Of what
 * passes by while somebody types or scrolls on, nothing is drawn.
 */
export function useSeen(element: RefObject<Element | null>): boolean {
  const [isSeen, setSeen] = useState(false)
  useEffect(() => {
    if (isSeen || !element.current) return
    let callOff: (() => void) | undefined
    const observer = new IntersectionObserver(
      (entries) => {
        callOff?.()
        callOff = entries.at(-1)!.isIntersecting ? whenStill(() => setSeen(true)) : undefined
      },
      { rootMargin: AHEAD, scrollMargin: AHEAD },
    )
    observer.observe(element.current)
    return () => {
      callOff?.()
      observer.disconnect()
    }
  }, [element, isSeen])
  return isSeen
}
