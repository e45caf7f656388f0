/** Patterns and shared sections as server and editor send them to each other, as JSON. */
import type { Page } from '../page/page.ts'
import type { PartFacts, PartType } from '../reuse/part-facts.ts'

/** On how many pages something stands, and how many of those visitors see. */
export interface Reach {
  readonly pages: number
  readonly live: number
}

/** A part as it is edited with the pages that show it. */
export interface LinkedPart extends PartVersions {
  readonly name: string
  readonly document: Page
  /** Everywhere it stands, also inside of other parts. */
  readonly reach: Reach
}

export interface PartVersions {
  /** Number of the newest version. */
  readonly version: number
  readonly liveVersion: number | null
}

/** Something that somebody saved to use it again: what the shelf and the library show of it. */
export interface SavedPart extends PartFacts, PartVersions {
  readonly id: string
  readonly type: PartType
  readonly reach: Reach
  readonly document: Page
  /** All text in it. */
  readonly words: string
  /** ISO 8601, UTC. */
  readonly savedAt: string
  readonly savedBy: string
  /** When it was deleted; null while it is offered. */
  readonly binnedAt: string | null
}

export interface NewPartRequest extends PartFacts {
  /** A pattern where it is left out. */
  readonly type?: PartType
  readonly document: Page
}

/** A change of what is said of a part. What is absent stays as it is. */
export interface PartRequest extends Partial<PartFacts> {
  /** Values as the sender saw them: where one is another by now, nothing is changed. */
  readonly was?: Partial<PartFacts>
}

/** A newer version of a template, made of the page as it is now. */
export interface SaveTemplateRequest {
  /** The version that the sender saw last. */
  readonly base: number
  readonly document: Page
}

/** A version of a part, as it was saved. */
export interface PartVersion {
  readonly version: number
  readonly document: Page
}

/** A shared section is to be deleted, and this comes where it stands: another one, or copies of it. */
export interface ReplacePartRequest {
  readonly instead: { readonly part: string } | 'copies'
}

/** A page on which a part stands. */
export interface PartPage {
  readonly pageId: string
  readonly title: string
  readonly path: string
  readonly isLive: boolean
}
