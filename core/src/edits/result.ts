import type { NodeId, Page } from '../page/page.ts'
import type { Edit } from './edit-shapes.ts'

export type RefusalCode =
  | 'unknown-node'
  | 'id-taken'
  | 'no-such-slot'
  | 'slot-refuses'
  | 'index-out-of-range'
  | 'nests-in-itself'
  | 'root-stays'
  | 'not-valid'

/** Why an edit does not fit a page. Nothing was changed. */
export interface Refusal {
  readonly ok: false
  /** For programs. */
  readonly code: RefusalCode
  /** For people. */
  readonly message: string
  readonly nodeId?: NodeId
}

/** A page after an edit, and the edit that gives the page before it. */
export interface Accepted {
  readonly ok: true
  readonly page: Page
  readonly inverse: Edit
}

export type Applied = Accepted | Refusal

export function refuse(code: RefusalCode, message: string, nodeId?: NodeId): Refusal {
  return { ok: false, code, message, ...(nodeId === undefined ? {} : { nodeId }) }
}
