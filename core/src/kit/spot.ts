import type { JsonObject } from '../page/json.ts'
import type { GridChild } from '../grid/arrangement.ts'
import type { NodeId } from '../page/page.ts'

/** What a kind can ask to be told of the place where its nodes stand. */
export type SpotFact = 'width' | 'early' | 'holder' | 'anchor' | 'outline' | 'bare' | 'children'

/** What a node must know of the place where it stands; only what its kind asks for. */
export interface Spot {
  /** The `sizes` attribute for the node's own picture. */
  readonly pictureSizes?: string
  /** True when the node stands so high on the page that its pictures should load at once. */
  readonly early?: boolean
  /** What holds the node, and the node's number among those it holds. */
  readonly holder?: Holder
  /** The anchor of a heading that has none of its own. */
  readonly anchor?: string
  /** The headings of the page, in reading order. */
  readonly outline?: readonly OutlineEntry[]
  /** True where the page's template shows no navigation around it. */
  readonly bare?: boolean
  /** The blocks in a placed slot, in their order, with what is set of their places. */
  readonly children?: readonly GridChild[]
}

export interface Holder {
  readonly id: NodeId
  readonly kind: string
  readonly content: JsonObject
  readonly look: JsonObject
  readonly index: number
}

/** A heading that can be linked to. */
export interface OutlineEntry {
  readonly id: NodeId
  readonly level: number
  readonly text: string
  /** Unique on the page unless somebody gave two places one name by hand. */
  readonly anchor: string
}
