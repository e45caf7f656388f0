import type { NodeId, Starter } from '@gullyline/core'
import type { Box, Point } from '../canvas/boxes.ts'
import type { CellLanding } from './cell-landing.ts'
import { useValue, Value } from '../../ui/value.ts'
import type { Landing } from './landing.ts'

/** What is dragged: a block of the page, or something new from the shelf. */
export type DragItem =
  | {
      readonly type: 'node'
      readonly id: NodeId
      readonly kind: string
      readonly title: string
      /** Where it is held, from its top left, in px of the frame; absent where it is not held on the page. */
      readonly grab?: Point
    }
  | { readonly type: 'starter'; readonly starter: Starter; readonly kind: string; readonly title: string }

/** A landing with its mark in the coordinates of the editor's window, and the words for a place outside of the page. */
export interface ShownLanding {
  readonly landing: Landing | undefined
  readonly mark: Box | undefined
  readonly refusal: string | undefined
  /** The place on a grid section, where it lands on one, with guides in the coordinates of the editor's window. */
  readonly cell?: CellLanding
  readonly guides?: readonly Box[]
}

export interface Drag {
  readonly item: DragItem
  /** In the coordinates of the editor's window. */
  readonly point: Point
  readonly shown: ShownLanding
}

/** The drag under way. One at a time: there is one pointer. */
export const dragStore = new Value<Drag | undefined>(undefined)

export function useDrag(): Drag | undefined {
  return useValue(dragStore)
}
