import type { Manifest } from '@gullyline/core'
import type { Releases } from './manifest.ts'

/** Names of files that releases show. */
export interface Names {
  /** Files at addresses that are no page's. */
  readonly files: ReadonlySet<string>
  /** Parts with the pages. */
  readonly records: ReadonlySet<string>
}

/** What releases show, each read once: a release is never written again. */
export class ReleaseNames {
  #known = new Map<string, Manifest>()

  /** Returns the names of the files that any of these releases shows. What can't be read is left out. */
  of(releases: Releases, ids: readonly string[]): Names {
    const manifests = ids.flatMap((id) => this.#find(releases, id) ?? [])
    return {
      files: new Set(manifests.flatMap(({ addresses }) => Object.values(addresses))),
      records: new Set(manifests.flatMap(({ records }) => records)),
    }
  }

  /** Forgets all but these releases. */
  keep(ids: readonly string[]): void {
    this.#known = new Map([...this.#known].filter(([id]) => ids.includes(id)))
  }

  #find(releases: Releases, id: string): Manifest | undefined {
    const manifest = this.#known.get(id) ?? releases.manifest(id)
    if (manifest) this.#known.set(id, manifest)
    return manifest
  }
}
