import { createContext, useContext, useDeferredValue, useEffect, useState, type ReactNode } from 'react'
import { afterPaint } from './after-paint.ts'

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

/** Becomes true for good once what `isRendered` tells of has been on the screen for a frame. */
export function usePainted(isRendered: boolean): boolean {
  const [isPainted, setPainted] = useState(false)
  useEffect(() => (isRendered ? afterPaint(() => setPainted(true)) : undefined), [isRendered])
  return isPainted
}
