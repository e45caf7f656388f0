/** The pages that private addresses show now, each drawn once for every state that it is asked for in. */
import { createHash } from 'node:crypto'
import type { PrivateAddressRow } from '../db/shown-rows.ts'
import { SiteScope } from '../db/site-scope.ts'
import { journalMark } from '../journal/store.ts'
import type { Services } from '../services.ts'
import { drawDevicePage, readToDraw, type DevicePage } from './device-page.ts'

/** More addresses than are looked at at a time; one that was forgotten is drawn again. */
const MOST_DRAWN = 32

interface Drawn {
  readonly mark: string
  readonly page: Promise<DevicePage>
}

type Needed = Pick<Services, 'db' | 'revisions' | 'dataDir'>

export class DevicePages {
  readonly #services: Needed
  readonly #drawn = new Map<string, Drawn>()

  constructor(services: Needed) {
    this.#services = services
  }

  /** Another value after each change of what an address shows. */
  async markOf({ siteId, ...key }: PrivateAddressRow): Promise<string> {
    const { db, revisions } = this.#services
    const known = await revisions.now()
    const marks = ['pages', 'parts', 'site'].map((name) => known.get(`${siteId}/${name}`) ?? '')
    const journaled = await journalMark({ manager: db.manager }, keyOf(key))
    return createHash('sha256')
      .update([...marks, journaled].join())
      .digest('base64url')
      .slice(0, 16)
  }

  /** The page of an address as it is now. `base` is its path. */
  async pageOf(address: PrivateAddressRow, base: string): Promise<DevicePage> {
    const { tokenHash } = address
    const mark = await this.markOf(address)
    const known = this.#drawn.get(tokenHash)
    if (known?.mark === mark) return known.page
    const page = this.#draw(address, base, mark)
    this.#drawn.delete(tokenHash)
    this.#drawn.set(tokenHash, { mark, page })
    const [oldest] = this.#drawn.keys()
    if (this.#drawn.size > MOST_DRAWN && oldest !== undefined) this.#drawn.delete(oldest)
    page.catch(() => {
      if (this.#drawn.get(tokenHash)?.page === page) this.#drawn.delete(tokenHash)
    })
    return page
  }

  async #draw(address: PrivateAddressRow, base: string, mark: string): Promise<DevicePage> {
    const { db, dataDir } = this.#services
    const scope = new SiteScope(db, address.siteId)
    const read = await scope.read((at) => readToDraw(at, keyOf(address)))
    return drawDevicePage(address.documentId, read, { base, mark, dataDir })
  }
}

function keyOf({ documentId, personId, tab }: Omit<PrivateAddressRow, 'siteId'>) {
  return { documentId, personId, tab }
}
