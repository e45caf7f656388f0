import { createContext, useContext } from 'react'
import type { NodeId } from '@gullyline/core'

export interface ShelfControl {
  /** What new things are placed after; null is the end of the page, undefined means that the shelf is closed. */
  readonly after: NodeId | null | undefined
  readonly openAfter: (id: NodeId | undefined) => void
  readonly close: () => void
}

const ShelfContext = createContext<ShelfControl | undefined>(undefined)
export const ShelfProvider = ShelfContext.Provider

export function useShelf(): ShelfControl {
  const shelf = useContext(ShelfContext)
  if (!shelf) throw new Error('useShelf is used outside of the editor')
  return shelf
}
