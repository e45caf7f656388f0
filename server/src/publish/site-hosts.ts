/** Which site visitors find under which name: written beside the releases, for those who answer visitors have no database. */
import { rename, writeFile } from 'node:fs/promises'
import { IsNull, Not } from 'typeorm'
import { SiteEntity } from '../db/rows.ts'
import { newId } from '../http/new-id.ts'
import { hostsFile, releasesFolder } from '../media/folders.ts'
import { makeFolder } from '../http/make-folder.ts'
import type { Services } from '../services.ts'
import { alone } from './one-at-a-time.ts'

/** Sites by their names. */
export type SiteHosts = Readonly<Record<string, { readonly siteId: string; readonly origin: string }>>

/** Where visitors see a site, without a slash at the end: by its own name, or by the one that was given at the start. */
export function originOf(host: string | null, liveOrigin: string): string {
  if (host === null) return liveOrigin
  const { protocol, port } = new URL(liveOrigin)
  return `${protocol}//${host}${port === '' ? '' : `:${port}`}`
}

/** Writes down the names of all sites as they are now. */
export function writeHosts(services: Pick<Services, 'db' | 'dataDir' | 'liveOrigin'>): Promise<void> {
  // Of two that write at once, the one that read the older names must not be last.
  return alone(services, async () => {
    const { db, dataDir, liveOrigin } = services
    const sites = await db.manager.findBy(SiteEntity, { host: Not(IsNull()) })
    const hosts: SiteHosts = Object.fromEntries(
      sites.map(({ id: siteId, host }) => [host!, { siteId, origin: originOf(host, liveOrigin) }]),
    )
    await makeFolder(releasesFolder(dataDir))
    const begun = `${hostsFile(dataDir)}-${newId()}`
    await writeFile(begun, JSON.stringify(hosts), { mode: 0o600 })
    await rename(begun, hostsFile(dataDir))
  })
}
