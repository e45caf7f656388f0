/** Patterns as server and editor send them to each other, as JSON. */
import type { Page } from '../page/page.ts'
import type { PartPurpose } from '../reuse/part-facts.ts'

/** A pattern that somebody saved: what the shelf and the library show of it. */
export interface SavedPart extends PartFacts {
  readonly id: string
  readonly document: Page
  /** All text in it. */
  readonly words: string
  /** ISO 8601, UTC. */
  readonly savedAt: string
  readonly savedBy: string
  /** When it was deleted; null while it is offered. */
  readonly binnedAt: string | null
}

/** What people say of a part. */
export interface PartFacts {
  /** No other part of the site has it. */
  readonly name: string
  readonly purpose: PartPurpose
  readonly about: string
}

export interface NewPartRequest extends PartFacts {
  readonly document: Page
}

/** A change of what is said of a part. What is absent stays as it is. */
export interface PartRequest extends Partial<PartFacts> {
  /** Values as the sender saw them: where one is another by now, nothing is changed. */
  readonly was?: Partial<PartFacts>
}
