import type { Present, VersionInfo } from '@gullyline/core'

/** What is told to everybody who has a page open. */
export type PresenceEvent =
  | { readonly event: 'people'; readonly data: readonly Present[] }
  | { readonly event: 'saved'; readonly data: VersionInfo & { readonly tab: string | null } }

type Tell = (told: PresenceEvent) => void

/** Who has which page open, and how to reach them. In memory: who is there is known again as soon as they come back. */
export class Presence {
  readonly #pages = new Map<string, Map<string, { readonly name: string; readonly tell: Tell }>>()

  /** Somebody comes; gives how to leave. Everybody there is told who is there now. */
  join(pageId: string, who: Present, tell: Tell): () => void {
    const there = this.#pages.get(pageId) ?? new Map<string, { name: string; tell: Tell }>()
    this.#pages.set(pageId, there)
    const own = { name: who.name, tell }
    there.set(who.tab, own)
    this.#tellPeople(pageId)
    return () => {
      // The same tab may have come back by another connection before this one was found to be dead.
      if (there.get(who.tab) !== own) return
      there.delete(who.tab)
      if (there.size === 0) this.#pages.delete(pageId)
      this.#tellPeople(pageId)
    }
  }

  isOpen(pageId: string, tab: string): boolean {
    return this.#pages.get(pageId)?.has(tab) ?? false
  }

  /** Tells everybody on a page that it was saved, and by which tab. */
  saved(pageId: string, version: VersionInfo, tab: string | null): void {
    this.#tellAll(pageId, { event: 'saved', data: { ...version, tab } })
  }

  #tellPeople(pageId: string): void {
    const there = [...(this.#pages.get(pageId) ?? [])]
    this.#tellAll(pageId, { event: 'people', data: there.map(([tab, { name }]) => ({ tab, name })) })
  }

  #tellAll(pageId: string, told: PresenceEvent): void {
    for (const { tell } of this.#pages.get(pageId)?.values() ?? []) tell(told)
  }
}
