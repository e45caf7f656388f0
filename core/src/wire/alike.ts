/** Sections that are nearly alike, as server and editor send them to each other, as JSON. */
import type { PartFacts } from '../reuse/part-facts.ts'
import type { Json } from '../page/json.ts'
import type { SavedPart } from './parts.ts'

/** A section on the newest version of a page. */
export interface AlikeSection {
  readonly pageId: string
  readonly version: number
  readonly nodeId: string
}

export interface AlikeSectionInfo extends AlikeSection {
  readonly pageTitle: string
  /** What the section is called in the spine. */
  readonly name: string
}

/** Sections that can become one part. */
export interface AlikeGroup {
  readonly sections: readonly AlikeSectionInfo[]
  /** What becomes a field, and what each section has there; null where it has nothing. */
  readonly differences: readonly { readonly name: string; readonly values: readonly (Json | null)[] }[]
}

export interface AlikeAnswer {
  readonly groups: readonly AlikeGroup[]
  /** How many sections were compared. */
  readonly compared: number
}

/** Makes one part of sections, and shows it in the place of each. */
export interface JoinAlikeRequest extends PartFacts {
  readonly sections: readonly AlikeSection[]
}

export interface JoinedAlike {
  readonly part: SavedPart
  /** How many pages were saved. */
  readonly pages: number
}
