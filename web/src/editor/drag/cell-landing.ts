import type { GridPlace, NodeId, SizeKey } from '@gullyline/core'
import type { Box } from '../canvas/boxes.ts'

/** A place on a grid section that something would get. */
export interface CellLanding {
  readonly gridId: NodeId
  readonly slot: string
  readonly size: SizeKey
  readonly place: GridPlace
  /** In px of the frame. */
  readonly box: Box
  readonly guides: readonly Box[]
  /** What is to be said of the place. */
  readonly note: string | undefined
}
