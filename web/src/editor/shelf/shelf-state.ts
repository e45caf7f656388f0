import { createContext, useContext } from 'react'
import type { NodeId } from '@gullyline/core'

/** A paragraph of a text block, counted from 0, that holds nothing but the mark for a name. */
export interface NameMark {
  readonly id: NodeId
  readonly at: number
}

export interface ShelfControl {
  /** What new things are placed after; null is the end of the page, undefined means that the shelf is closed. */
  readonly after: NodeId | null | undefined
  /** Where a name was asked for in a text, which what is placed then takes the place of. */
  readonly mark: NameMark | undefined
  readonly openAfter: (id: NodeId | undefined, mark?: NameMark) => void
  readonly close: () => void
}

const ShelfContext = createContext<ShelfControl | undefined>(undefined)
export const ShelfProvider = ShelfContext.Provider

export function useShelf(): ShelfControl {
  const shelf = useContext(ShelfContext)
  if (!shelf) throw new Error('useShelf is used outside of the editor')
  return shelf
}
