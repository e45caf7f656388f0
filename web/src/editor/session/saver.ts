/** Sending saves. Its code comes once the page is there: nobody saves before. */
import {
  changedParts,
  isFrameName,
  partOf,
  type History,
  type Page,
  type SaveRequest,
  type SaveResult,
  type SessionPart,
  type SharedName,
  type StaleDocument,
  type VersionInfo,
} from '@gullyline/core'
import { ApiError, request } from '../../api/client.ts'
import { inSite } from '../../api/site-address.ts'
import { unsavedCount } from './editor-state.ts'
import type { EditorStore } from './editor-store.ts'
import { newId } from './new-id.ts'
import type { JournalSender } from './journal-sender.ts'
import { documentIn, type SessionDocuments } from './session.ts'
import { reachOfPart } from './reach.ts'

function savedWords(name: SharedName, { linked }: EditorStore): string {
  if (isFrameName(name)) return `Saved the ${name}, for every page`
  const part = linked.get()[name]
  return part ? `Saved “${part.name}”, ${reachOfPart(part)}` : 'Saved a shared section'
}

/** A save that was sent and whose answer has not come. */
interface Sent {
  readonly saveId: string
  readonly page: Page
  readonly base: number
  /** The documents that it held, by their ids. */
  readonly ids: readonly string[]
  readonly step: History['done'][number] | undefined
  readonly mark: number
}

/** Sends saves of everything that is edited together, and knows its own again when an answer was lost. */
export class Saver {
  readonly #store: EditorStore
  readonly #documents: SessionDocuments
  readonly #sender: JournalSender
  readonly #onSaved: (shared: readonly SharedName[]) => void
  #unanswered: Sent | undefined

  /** `onSaved` is called after every save, with the shared sections that it held. */
  constructor(
    store: EditorStore,
    documents: SessionDocuments,
    sender: JournalSender,
    onSaved: (shared: readonly SharedName[]) => void,
  ) {
    this.#store = store
    this.#documents = documents
    this.#sender = sender
    this.#onSaved = onSaved
  }

  /** Saves everything as it is now. Returns the documents of which others saved a newer version; then nothing was saved. */
  async saveOnce(): Promise<readonly StaleDocument[] | undefined> {
    await this.#sender.hold()
    try {
      if (this.#unanswered) await this.#findOut(this.#unanswered)
      if (unsavedCount(this.#store.state) === 0) return undefined
      return await this.#send()
    } finally {
      this.#sender.release()
    }
  }

  async #send(): Promise<readonly StaleDocument[] | undefined> {
    const { page, saved, history } = this.#store.state
    const { journal } = this.#store
    const changed = changedParts(saved.page, page)
    // When every edit was changed back by hand, the page is saved all the same, so that the person gets a version.
    const parts: readonly SessionPart[] = changed.length === 0 ? ['page'] : changed
    const sent = {
      saveId: newId(),
      page,
      base: saved.version,
      ids: parts.map((part) => documentIn(this.#documents, part)),
      step: history.done.at(-1),
      mark: journal.mark(),
    }
    const body: SaveRequest = {
      base: sent.base,
      ...(parts.includes('page') ? { document: partOf(page, 'page') } : {}),
      shared: parts
        .filter((name) => name !== 'page')
        .map((name) => ({
          id: documentIn(this.#documents, name),
          base: saved.shared[name]!,
          document: partOf(page, name),
        })),
      saveId: sent.saveId,
      journal: { tab: journal.owner.tab, until: sent.mark },
    }
    this.#unanswered = sent
    try {
      const path = inSite(`/pages/${this.#documents.page}/document`)
      const { version, shared } = await request<SaveResult>(path, { method: 'PUT', body })
      this.#arrived(sent, parts.includes('page') ? version : sent.base, shared)
      return undefined
    } catch (error) {
      const refused = error instanceof ApiError ? error.body : undefined
      // Whatever the server answered, it did not save; without an answer it may have.
      if (refused) this.#unanswered = undefined
      if (refused?.code === 'stale-save' && refused.stale) return refused.stale
      throw error
    }
  }

  #arrived({ step, mark, page, base }: Sent, version: number, byId: Readonly<Record<string, number>>): void {
    this.#unanswered = undefined
    const before = this.#store.state.saved.shared
    const newest = (name: SharedName): number | undefined => byId[documentIn(this.#documents, name)]
    const names = Object.keys(before).filter((name) => newest(name) !== undefined)
    const versions = { ...before, ...Object.fromEntries(names.map((name) => [name, newest(name)!])) }
    this.#store.dispatch({ type: 'saved', saved: { version, shared: versions, step, page } })
    this.#store.journal.dropUntil(mark, version, versions)
    const saved = names.map((name) => savedWords(name, this.#store))
    const words = [...(version > base ? [`Saved as version ${version}`] : []), ...saved]
    this.#store.dispatch({ type: 'tell', words: words.join('. '), tone: 'done' })
    this.#onSaved(names)
  }

  /** Whether the save whose answer was lost has arrived: then what it holds is saved, and not somebody else's. */
  async #findOut(sent: Sent): Promise<void> {
    const found = await Promise.all(
      sent.ids.map(async (id) => {
        const versions = await request<VersionInfo[]>(inSite(`/documents/${id}/versions`))
        return [id, versions.find(({ saveId }) => saveId === sent.saveId)?.number] as const
      }),
    )
    const saved = found.flatMap(([id, number]) => (number === undefined ? [] : [[id, number] as const]))
    if (saved.length === 0) {
      this.#unanswered = undefined
      return
    }
    const byId = Object.fromEntries(saved)
    this.#arrived(sent, byId[this.#documents.page] ?? sent.base, byId)
  }
}
