/** Styles and scripts of a publish. */
import { createHash } from 'node:crypto'
import type { ContentStore } from './content-store.ts'

interface FileLink {
  readonly href: string
  readonly integrity: string
}

/** Styles and scripts, of which many pages have the same: each is digested and put into the store once. */
export class SharedFiles {
  readonly #store: ContentStore
  readonly #links = new Map<string, FileLink>()
  /** Their names in the content store. */
  readonly #names = new Map<string, Promise<string>>()

  constructor(store: ContentStore) {
    this.#store = store
  }

  /** Named by its content, so that browsers may keep it for ever. */
  link(content: string, type: 'css' | 'js'): FileLink {
    let link = this.#links.get(content)
    if (!link) {
      const digest = createHash('sha256').update(content).digest()
      const href = `/${type === 'css' ? 'styles' : 'scripts'}/${digest.toString('hex').slice(0, 12)}.${type}`
      link = { href, integrity: `sha256-${digest.toString('base64')}` }
      this.#links.set(content, link)
    }
    return link
  }

  put(content: string, type: 'css' | 'js'): Promise<string> {
    let name = this.#names.get(content)
    if (!name) this.#names.set(content, (name = this.#store.putText(content, `.${type}`)))
    return name
  }
}
