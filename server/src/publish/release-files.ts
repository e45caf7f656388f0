/** The files of releases: whether one is whole, and the removal of what none shows any more. */
import type { Services } from '../services.ts'
import { ContentStore } from './content-store.ts'
import { Releases } from './manifest.ts'
import type { Names } from './release-names.ts'

/** Earlier releases that are kept, beside the one visitors see. */
const KEPT_RELEASES = 3

type Given = Pick<Services, 'dataDir' | 'releases'>

/** Whether every file of a release is there. */
export async function isWhole({ dataDir, releases: { parts } }: Given, releaseId: string): Promise<boolean> {
  const manifest = new Releases(dataDir).manifest(releaseId)
  if (!manifest) return false
  const store = new ContentStore(dataDir)
  const there = new Set(await store.list())
  const isThere = (name: string): boolean => there.has(name)
  // Before they are read: one that is gone must not be told by what is remembered of it.
  if (![...manifest.records, ...Object.values(manifest.addresses)].every(isThere)) return false
  const files = await parts.fileNames(store, manifest.records).catch(() => undefined)
  return files !== undefined && [...files].every(isThere)
}

/** Removes releases that nobody will go back to, and the files that they alone showed. */
export async function removeOldReleases({ dataDir, releases: known }: Given): Promise<void> {
  const { parts } = known
  const releases = new Releases(dataDir)
  const namesOf = (ids: readonly string[]): Names[] => known.names.of(releases, ids)
  const ids = await releases.list()
  const shown = new Set(await releases.allCurrent())
  const old = ids.filter((id) => !shown.has(id)).slice(KEPT_RELEASES)
  if (old.length === 0) return
  const store = new ContentStore(dataDir)
  const staying = ids.filter((id) => !old.includes(id))
  const [gone, kept] = [namesOf(old), namesOf(staying)]
  const lost = namedBy(gone, 'records').filter((name) => !kept.some(({ records }) => records.has(name)))
  // What names a file that is gone can't be read any more: the file goes with the leftovers, at the next start.
  const files = await parts.fileNames(store, lost).catch(() => [])
  for (const id of old) await releases.remove(id)
  known.names.keep(staying)
  const maybe = [...namedBy(gone, 'files'), ...files].filter(
    (name) => !kept.some((one) => one.files.has(name)),
  )
  const records = namedBy(kept, 'records')
  await store.remove([...lost, ...(await parts.unnamed(store, records, maybe))])
  parts.keep(new Set(records))
}

/** Removes what a publish made that came to nothing. */
export async function removeTry(services: Given, releaseId: string): Promise<void> {
  await new Releases(services.dataDir).remove(releaseId)
  await removeLeftovers(services)
}

/** Removes what no release shows: what publishes left behind that failed or were killed. */
export async function removeLeftovers({ dataDir, releases: known }: Given): Promise<void> {
  const releases = new Releases(dataDir)
  await releases.removeLeftovers()
  const store = new ContentStore(dataDir)
  const shown = new Set(await releases.allCurrent())
  const used = new Set<string>()
  for (const id of await releases.list()) {
    const named = known.names.of(releases, [id])
    const records = namedBy(named, 'records')
    try {
      for (const name of await known.parts.fileNames(store, records)) used.add(name)
    } catch (error) {
      // Nobody can go back to a release of which anything is gone, as when a backup was made while it was removed. Where it
      // can't be told what is used for any other reason, nothing is removed.
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT' || shown.has(id)) throw error
      await releases.remove(id)
      continue
    }
    for (const name of [...namedBy(named, 'files'), ...records]) used.add(name)
  }
  await store.remove((await store.list()).filter((name) => !used.has(name)))
}

/** The names in any of these, each once. */
function namedBy(names: readonly Names[], kind: keyof Names): string[] {
  const all = new Set<string>()
  for (const one of names) for (const name of one[kind]) all.add(name)
  return [...all]
}
