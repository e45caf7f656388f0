import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Manifest, ReleasedPages } from '@gullyline/core'

/** A file of the content store, and how many parts of the release name it. */
interface Named {
  readonly name: string
  count: number
}

/** What each address of a release shows. From one release to the next, only the parts that are new are read. */
export class ReleaseAddresses {
  readonly #content: string
  /** Parts of the release by their names, with the addresses in each. */
  readonly #parts = new Map<string, readonly (readonly [address: string, name: string])[]>()
  readonly #pages = new Map<string, Named>()
  #others: Manifest['addresses'] = {}
  #redirects: Manifest['redirects'] = {}

  /** `content` is the folder of the content store. */
  constructor(content: string) {
    this.#content = content
  }

  /** Shows a release from now on. Throws when one of its parts can't be read; then it shows what it showed. */
  show({ addresses, redirects, records }: Manifest): void {
    const added = records
      .filter((name) => !this.#parts.has(name))
      .map((name) => [name, this.#read(name)] as const)
    const kept = new Set(records)
    for (const [name, files] of this.#parts) {
      if (kept.has(name)) continue
      this.#parts.delete(name)
      for (const [address] of files) this.#drop(address)
    }
    for (const [name, files] of added) {
      this.#parts.set(name, files)
      for (const [address, file] of files) this.#add(address, file)
    }
    this.#others = addresses
    this.#redirects = redirects
  }

  /** The name in the content store of the file at an address; undefined where there is none. */
  find(address: string): string | undefined {
    return Object.hasOwn(this.#others, address) ? this.#others[address] : this.#pages.get(address)?.name
  }

  /** Where an address leads that a page had before. */
  redirect(path: string): string | undefined {
    return Object.hasOwn(this.#redirects, path) ? this.#redirects[path] : undefined
  }

  #read(name: string): (readonly [string, string])[] {
    const pages = JSON.parse(readFileSync(join(this.#content, name), 'utf8')) as ReleasedPages
    const files = new Map(Object.values(pages).flatMap((page) => Object.entries(page.files)))
    return [...files]
  }

  #add(address: string, name: string): void {
    const count = this.#pages.get(address)?.count ?? 0
    // The same address shows something else only where it is a page's own.
    this.#pages.set(address, { name, count: count + 1 })
  }

  #drop(address: string): void {
    const known = this.#pages.get(address)
    if (!known) return
    known.count--
    if (known.count === 0) this.#pages.delete(address)
  }
}
