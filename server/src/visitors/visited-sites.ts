/** The sites that visitors find, each by the name that they ask for. */
import { readFileSync, statSync } from 'node:fs'
import { hostsFile } from '../media/folders.ts'
import type { SiteHosts } from '../publish/site-hosts.ts'
import { ReadyAnswers } from './ready-answers.ts'
import { SiteFiles } from './site-files.ts'

/** A site as visitors are answered from it. */
export class VisitedSite {
  readonly files: SiteFiles
  readonly answers = new ReadyAnswers()
  /** Where visitors see it, without a slash at the end. */
  readonly origin: string
  #live: { readonly release: string | undefined } | undefined

  constructor(given: { readonly dataDir: string; readonly siteId: string; readonly origin: string }) {
    this.files = new SiteFiles(given)
    this.origin = given.origin
  }

  /** The id of the release that is live: read once for all requests that came in together. */
  get release(): string | undefined {
    if (!this.#live) setImmediate(() => (this.#live = undefined))
    this.#live ??= { release: this.files.release }
    return this.#live.release
  }
}

interface Given {
  readonly dataDir: string
  readonly liveOrigin: string
  /** The site that has no name of its own. */
  readonly siteId: string
}

export class VisitedSites {
  readonly main: VisitedSite
  readonly #mainHost: string
  readonly #dataDir: string
  readonly #file: string
  #others = new Map<string, VisitedSite>()
  /** Tells the file from the one before. */
  #read = ''
  #isFresh = false

  constructor({ dataDir, liveOrigin, siteId }: Given) {
    this.#dataDir = dataDir
    this.#file = hostsFile(dataDir)
    this.#mainHost = new URL(liveOrigin).hostname
    this.main = new VisitedSite({ dataDir, siteId, origin: liveOrigin })
  }

  /** The site with this name; undefined where none has it. */
  find(host: string): VisitedSite | undefined {
    return host === this.#mainHost ? this.main : this.#named().get(host)
  }

  #named(): ReadonlyMap<string, VisitedSite> {
    if (this.#isFresh) return this.#others
    // As the release that is live: looked at once for all requests that came in together.
    this.#isFresh = true
    setImmediate(() => (this.#isFresh = false))
    const facts = statSync(this.#file, { throwIfNoEntry: false })
    const read = facts ? `${facts.mtimeMs}-${facts.size}-${facts.ino}` : ''
    if (read === this.#read) return this.#others
    this.#read = read
    const hosts = facts ? (JSON.parse(readFileSync(this.#file, 'utf8')) as SiteHosts) : {}
    const dataDir = this.#dataDir
    this.#others = new Map(
      Object.entries(hosts).map(([host, given]) => [host, new VisitedSite({ dataDir, ...given })]),
    )
    return this.#others
  }
}
