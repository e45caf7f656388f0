import { createContext, useContext, useDeferredValue, useEffect, useState, type ReactNode } from 'react'

/** Whether what the screen is for has been drawn. */
const FirstIsThere = createContext(true)
export const FirstIsThereProvider = FirstIsThere.Provider

/** Whether what the screen is for has been drawn, and there is time for what goes with it. */
export function useIsAfterFirst(): boolean {
  return useDeferredValue(useContext(FirstIsThere), false)
}

interface AfterFirstProps {
  readonly children: ReactNode
  /** What keeps the place meanwhile. */
  readonly instead?: ReactNode
}

/** What can wait until what the screen is for has been drawn: the page first, then what stands around it. */
export function AfterFirst({ children, instead = null }: AfterFirstProps) {
  return useIsAfterFirst() ? children : instead
}

/** Where no frame is painted, as in a tab in the background, nobody sees what comes first. */
const LONGEST_FRAME_MS = 500

/** Becomes true for good once what `isRendered` tells of has been on the screen for a frame. */
export function usePainted(isRendered: boolean): boolean {
  const [isPainted, setPainted] = useState(false)
  useEffect(() => {
    if (!isRendered) return
    const done = (): void => setPainted(true)
    // What is asked for in a frame's callback runs before the next one, so after this one was painted.
    let asked = requestAnimationFrame(() => {
      asked = requestAnimationFrame(done)
    })
    const patience = setTimeout(done, LONGEST_FRAME_MS)
    return () => {
      cancelAnimationFrame(asked)
      clearTimeout(patience)
    }
  }, [isRendered])
  return isPainted
}
