import type { Severity } from '../checks/define-check.ts'
import type { ShownId } from '../resolve/expand.ts'

/** A range of widths in which something on a page is wrong. */
export interface Gully {
  readonly rule: string
  /** Absent for what concerns the page as a whole. */
  readonly nodeId?: ShownId
  /** The narrowest and the widest screen with it, in px. */
  readonly from: number
  readonly to: number
  /** The width at which it is worst. */
  readonly worst: number
  readonly why: string
  readonly source: string
  readonly severity: Severity
}
