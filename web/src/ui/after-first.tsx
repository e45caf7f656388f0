import { createContext, useContext, useDeferredValue, type ReactNode } from 'react'

/** Whether what the screen is for has been drawn. */
const FirstIsThere = createContext(true)
export const FirstIsThereProvider = FirstIsThere.Provider

interface AfterFirstProps {
  readonly children: ReactNode
  /** What keeps the place meanwhile. */
  readonly instead?: ReactNode
}

/** What can wait until what the screen is for has been drawn: the page first, then what stands around it. */
export function AfterFirst({ children, instead = null }: AfterFirstProps) {
  return useDeferredValue(useContext(FirstIsThere), false) ? children : instead
}
