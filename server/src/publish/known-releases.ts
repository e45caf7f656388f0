import type { CompiledSite } from './compile-site.ts'
import type { LiveSite } from './live-site.ts'
import { RecordParts } from './page-records.ts'
import { ReleaseNames } from './release-names.ts'

/** A release, and what it was made from. */
export interface KnownRelease {
  readonly id: string
  readonly live: LiveSite
  readonly compiled: CompiledSite
  /** The names of the parts that its records are kept in. */
  readonly records: readonly string[]
}

/**
 * The release that this process made last of each site, so that the next one costs what changed. Another process may
 * have made a newer one; then nothing is known.
 */
export class KnownReleases {
  readonly parts = new RecordParts()
  readonly names = new ReleaseNames()
  readonly #last = new Map<string, KnownRelease>()

  /** The release of a site, if this process made it. */
  find(siteId: string, releaseId: string | null): KnownRelease | undefined {
    const known = this.#last.get(siteId)
    return known?.id === releaseId ? known : undefined
  }

  /** Has the site made anew from what is on the disk. */
  forget(siteId: string): void {
    this.#last.delete(siteId)
  }

  add(siteId: string, release: KnownRelease): void {
    this.#last.set(siteId, release)
  }
}
