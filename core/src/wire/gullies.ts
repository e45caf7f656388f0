/** What the server tells of the gullies of live pages, which it measures in the background. */
import type { Gully } from '../measure/gully.ts'

/** A live page as it was measured last. */
export interface SweptLivePage {
  readonly pageId: string
  readonly title: string
  readonly path: string
  /** Null before it was measured for the first time. */
  readonly sweptAt: string | null
  /** Whether it has not changed since. */
  readonly isCurrent: boolean
  /** Null where it could not be measured. What is ignored says why. */
  readonly gullies: readonly (Gully & { readonly ignored?: string })[] | null
}

export interface LiveGullies {
  readonly measuring: 'on' | 'off' | 'no-chromium'
  /** In the order of the tree. */
  readonly pages: readonly SweptLivePage[]
}
