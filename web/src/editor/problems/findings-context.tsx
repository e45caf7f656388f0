import { createContext, useContext, type ReactNode } from 'react'
import type { Finding } from '@gullyline/core'
import { useFindings } from './use-findings.ts'

const FindingsContext = createContext<readonly Finding[]>([])

/** Runs the checks once for all parts of the screen that show them. */
export function FindingsProvider({ children }: { children: ReactNode }) {
  return <FindingsContext value={useFindings()}>{children}</FindingsContext>
}

export function useShownFindings(): readonly Finding[] {
  return useContext(FindingsContext)
}
