/** What server and editor say to each other while somebody works on a page, as JSON: what is kept between saves, and who is there. */
import type { Edit } from '../edits/edit-shapes.ts'
import type { SharedVersions, VersionInfo } from './wire.ts'

/** One act kept between two saves, as edits that can be applied again. */
export interface JournalEntry {
  /** Counts up within a tab. */
  readonly number: number
  /** Number of the version that it stands on. */
  readonly base: number
  /** Numbers of the versions of shared sections that it stands on; absent in entries from before those could be edited. */
  readonly shared?: SharedVersions
  /** Milliseconds since 1970, by the clock of the browser. */
  readonly at: number
  readonly edits: readonly Edit[]
}

export interface JournalRequest {
  readonly entries: readonly JournalEntry[]
}

/** What the server keeps of one tab's edits to a page. */
export interface KeptJournal {
  readonly tab: string
  /** True while that tab is still open somewhere: then its edits are in good hands. */
  readonly isOpen: boolean
  readonly entries: readonly JournalEntry[]
}

/** A tab of a browser with the page it has open. */
export interface PresentTab {
  readonly tab: string
  readonly pageId: string
}

export interface PresenceRequest {
  readonly tabs: readonly PresentTab[]
}

/** Where a page can be looked at from other devices, as it stands in one tab, until it ends. */
export interface PrivateAddress {
  /** The whole address, by each name under which this machine is found, best first. */
  readonly addresses: readonly string[]
  /** Whether other devices reach it; otherwise this machine alone. */
  readonly isShared: boolean
  readonly expiresAt: string
}

/** Somebody who has a page open. */
export interface Present {
  readonly tab: string
  readonly name: string
}

/** What is told to everybody who has a page open. Each names its page, since a browser listens for all its tabs at once. */
export type PresenceEvent =
  /** Everybody there, to who has just come. */
  | {
      readonly event: 'people'
      readonly data: { readonly pageId: string; readonly people: readonly Present[] }
    }
  | { readonly event: 'came'; readonly data: Present & { readonly pageId: string } }
  | { readonly event: 'left'; readonly data: { readonly pageId: string; readonly tab: string } }
  | {
      readonly event: 'saved'
      readonly data: VersionInfo & { readonly pageId: string; readonly tab: string | null }
    }
  | {
      readonly event: 'deleted' | 'restored'
      readonly data: { readonly pageId: string; readonly by: string }
    }
