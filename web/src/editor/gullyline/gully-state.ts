import type { Gully, Page } from '@gullyline/core'

/** How far measuring is. While somebody edits it is `waiting`; what has `failed` is tried again by itself. */
export type Stage = 'waiting' | 'measuring' | 'whole' | 'failed'

/** What is known of a page's gullies. */
export interface GullyState {
  /** The page that they were measured on. */
  readonly page: Page | undefined
  readonly gullies: readonly Gully[]
  /** From 0 to 1. */
  readonly progress: number
  readonly stage: Stage
}

export const UNMEASURED: GullyState = { page: undefined, gullies: [], progress: 0, stage: 'waiting' }
