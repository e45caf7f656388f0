import type { Releases } from './manifest.ts'

/** Names of files that a release shows. */
export interface Names {
  /** Files at addresses that are no page's. */
  readonly files: ReadonlySet<string>
  /** Parts with the pages. */
  readonly records: ReadonlySet<string>
}

/** What releases show, each read once: a release is never written again. */
export class ReleaseNames {
  #known = new Map<string, Names>()

  /** Returns the names of the files that each of these releases shows. What can't be read is left out. */
  of(releases: Releases, ids: readonly string[]): Names[] {
    return ids.flatMap((id) => this.#find(releases, id) ?? [])
  }

  /** Forgets all but these releases. */
  keep(ids: readonly string[]): void {
    this.#known = new Map([...this.#known].filter(([id]) => ids.includes(id)))
  }

  #find(releases: Releases, id: string): Names | undefined {
    const known = this.#known.get(id)
    if (known) return known
    const manifest = releases.manifest(id)
    if (!manifest) return undefined
    const names = { files: new Set(Object.values(manifest.addresses)), records: new Set(manifest.records) }
    this.#known.set(id, names)
    return names
  }
}
