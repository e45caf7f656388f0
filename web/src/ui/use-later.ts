import { useEffect, useState } from 'react'

/**
 * A value once it has stayed the same for `pauseMs`: for parts of the screen that nobody looks at between two letters,
 * so that the letters come first. React's own deferring would begin at once, and hold up the frame that shows them.
 */
export function useLater<T>(value: T, pauseMs: number): T {
  const [later, setLater] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setLater(value), pauseMs)
    return () => clearTimeout(timer)
  }, [value, pauseMs])
  return later
}

/** The pause after which panes beside the page follow words that are typed on it. */
export const TYPING_PAUSE_MS = 200
