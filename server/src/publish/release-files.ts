/** The files of releases: whether one is whole, and the removal of what none shows any more. */
import type { Services } from '../services.ts'
import { ContentStore } from './content-store.ts'
import { Releases } from './manifest.ts'

/** Earlier releases that are kept, beside the one visitors see. */
const KEPT_RELEASES = 3

type DataFolder = Pick<Services, 'dataDir'>

/** Whether every file of a release is there. */
export async function isWhole({ dataDir }: DataFolder, releaseId: string): Promise<boolean> {
  const manifest = new Releases(dataDir).manifest(releaseId)
  if (!manifest) return false
  const there = new Set(await new ContentStore(dataDir).list())
  return [...Object.values(manifest.addresses), ...manifest.records].every((name) => there.has(name))
}

/** Removes releases that nobody will go back to, and the files that they alone showed. */
export async function removeOldReleases({ dataDir }: DataFolder): Promise<void> {
  const releases = new Releases(dataDir)
  const ids = await releases.list()
  const shown = new Set(await releases.allCurrent())
  const old = ids.filter((id) => !shown.has(id)).slice(KEPT_RELEASES)
  if (old.length === 0) return
  const used = namesOf(
    releases,
    ids.filter((id) => !old.includes(id)),
  )
  const gone = [...namesOf(releases, old)].filter((name) => !used.has(name))
  for (const id of old) await releases.remove(id)
  await new ContentStore(dataDir).remove(gone)
}

function namesOf(releases: Releases, ids: readonly string[]): Set<string> {
  const manifests = ids.flatMap((id) => releases.manifest(id) ?? [])
  return new Set(manifests.flatMap(({ addresses, records }) => [...Object.values(addresses), ...records]))
}

/** Removes what a publish made that came to nothing. */
export async function removeTry(services: DataFolder, releaseId: string): Promise<void> {
  await new Releases(services.dataDir).remove(releaseId)
  await removeLeftovers(services)
}

/** Removes what no release shows: what publishes left behind that failed or were killed. */
export async function removeLeftovers({ dataDir }: DataFolder): Promise<void> {
  const releases = new Releases(dataDir)
  await releases.removeLeftovers()
  const store = new ContentStore(dataDir)
  const used = namesOf(releases, await releases.list())
  await store.remove((await store.list()).filter((name) => !used.has(name)))
}
