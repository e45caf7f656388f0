/** A site as files: every live page, its stylesheet, and the pictures and fonts they use. Made again is only what changed. */
import { allEnded } from './all-ended.ts'
import { ContentStore } from './content-store.ts'
import { robotsTxt } from './crawlers.ts'
import type { LivePage, LiveSite } from './live-site.ts'
import { makePage, type MissingFile } from './make-page.ts'
import { pageKeys } from './page-keys.ts'
import type { PageRecord, PageRecords } from './page-records.ts'
import { prepareContext, type MadeFrom, type Where } from './prepare-context.ts'
import { changesBetween, Readers, touchedSince } from './site-changes.ts'
import { SharedMap } from './shared-map.ts'
import { writeSitemap, type ListedChanges, type WrittenSitemap } from './write-sitemap.ts'
import { Refused } from '../http/errors.ts'
import type { Watch } from '../http/progress.ts'

export interface CompiledSite {
  readonly pages: PageRecords
  /** The ids of pages whose records are other ones than before, or gone. */
  readonly changed: ReadonlySet<string>
  /** The files in the content store of what is no page, by address. */
  readonly addresses: Readonly<Record<string, string>>
  /** Files of the library that could not be found. */
  readonly missing: readonly MissingFile[]
  readonly madeFrom: MadeFrom
  readonly sitemap: WrittenSitemap
  readonly readers: Readers
}

/** What the site was before: the records of its pages and, where this process compiled it, what it was compiled from. */
type Before = Pick<CompiledSite, 'pages'> &
  Partial<Pick<CompiledSite, 'madeFrom' | 'sitemap' | 'readers' | 'missing'>>

/** The key of no page. */
const INCOMPLETE = ''
/** So many documents are read at once: enough that a page seldom waits for its own, and few enough to hold. */
const READ_AT_ONCE = 20
/** Some are compressed and written while another is rendered; rendering more at a stretch would keep others waiting. */
const MADE_AT_ONCE = 4

/**
 * Puts the files of the site into the content store, and returns what each address shows. Pages that were made from the
 * same in `before` keep their files. The same site always gives the same result, whatever `before` is.
 */
export async function compileSite(
  live: LiveSite,
  before: Before,
  { dataDir, liveOrigin, onProgress, signal }: Where & Watch,
): Promise<CompiledSite> {
  const store = new ContentStore(dataDir)
  const context = await prepareContext(live, { store, dataDir, liveOrigin, before: before.madeFrom })
  const { madeFrom } = context
  const keyOf = pageKeys({ common: madeFrom.common, lines: madeFrom.lines, site: madeFrom })
  const readers = before.readers ?? readersOf(before.pages)
  const changed = await pagesToMake(live, { before, readers, now: madeFrom, keyOf, store })
  const records = new Map<string, PageRecord>()
  const missing: MissingFile[] = []
  const groups = grouped(changed, READ_AT_ONCE)
  // The next ones are read while these are made.
  let next = groups[0] && live.readDocuments(groups[0])
  for (const [g, group] of groups.entries()) {
    const documents = await next!
    next = groups[g + 1] && live.readDocuments(groups[g + 1]!)
    // Where making fails, nobody waits for it any more.
    next?.catch(() => undefined)
    const made = await severalAtOnce(group, (page) => {
      refuseCancelled(signal)
      return makePage(page, documents.get(page.id)!, { live, context, store, dataDir })
    })
    for (const [i, page] of group.entries()) {
      const { record, reads, missing: lacking } = made[i]!
      const { version, settings, savedAt } = page
      // A page that lacks a file is made again each time, until the file is there.
      const key = lacking.length > 0 ? INCOMPLETE : keyOf(page, reads)
      records.set(page.id, { version, settings, savedAt: savedAt.toISOString(), key, ...record })
      readers.add(page.id, reads)
      missing.push(...lacking)
    }
    onProgress(records.size, changed.length)
  }
  let pages = SharedMap.of(before.pages).with(records)
  const gone: string[] = []
  // Of the same number, all are the same.
  if (pages.size > live.pages.length) for (const id of pages.keys()) if (!live.byId.has(id)) gone.push(id)
  pages = pages.with(gone.map((id) => [id, undefined]))
  const addresses: Record<string, string> = {
    ...context.iconFiles,
    '/robots.txt': await store.putText(robotsTxt(liveOrigin), '.txt'),
  }
  const sitemap = await writeSitemap(store, {
    origin: liveOrigin,
    listed: () => live.pages.filter(isListed),
    before: before.sitemap,
    changes: listedSince(live, before.madeFrom),
  })
  Object.assign(addresses, sitemap.addresses)
  return {
    sitemap,
    pages,
    changed: new Set([...records.keys(), ...gone]),
    addresses,
    missing,
    madeFrom,
    readers,
  }
}

function isListed({ settings, isNotFound }: LivePage): boolean {
  return settings.isListed && !isNotFound
}

/** How the pages that the sitemap lists are other ones than before; undefined where that is not known. */
function listedSince(live: LiveSite, before: MadeFrom | undefined): ListedChanges | undefined {
  const touched = before && touchedSince(before, live)
  return (
    touched && { touched, listed: [...touched].flatMap((id) => live.byId.get(id) ?? []).filter(isListed) }
  )
}

interface Comparing {
  readonly before: Before
  readonly readers: Readers
  readonly now: MadeFrom
  readonly keyOf: ReturnType<typeof pageKeys>
  readonly store: ContentStore
}

/** Returns the pages that are not what they were. */
async function pagesToMake(live: LiveSite, given: Comparing): Promise<LivePage[]> {
  const { before, store } = given
  const toMake = pagesMadeFromOther(live, given)
  // What goes live now must be whole.
  for (const id of live.goingLive) {
    const [page, record] = [live.byId.get(id), before.pages.get(id)]
    if (page && record && !toMake.has(page) && !(await store.hasAll(Object.values(record.files))))
      toMake.add(page)
  }
  return [...toMake]
}

/** The pages that are new, or made from something else than before. */
function pagesMadeFromOther(live: LiveSite, { before, readers, now, keyOf }: Comparing): Set<LivePage> {
  if (before.madeFrom?.common !== now.common) {
    const isOther = (page: LivePage): boolean => {
      const record = before.pages.get(page.id)
      return !record || record.key !== keyOf(page, record.reads)
    }
    return new Set(live.pages.filter(isOther))
  }
  const { pages, reads } = changesBetween(before.madeFrom, now)
  const looked = readers.of(reads)
  for (const { page } of before.missing ?? []) looked.add(page.id)
  const isOther = (id: string): boolean => {
    const record = before.pages.get(id)
    if (!record || pages.has(id) || record.key === INCOMPLETE) return true
    return record.reads.some((name) => reads.has(name))
  }
  const others = [...pages, ...looked].filter(isOther)
  return new Set(others.flatMap((id) => live.byId.get(id) ?? []))
}

function readersOf(records: PageRecords): Readers {
  const readers = new Readers()
  for (const [id, { reads }] of records) readers.add(id, reads)
  return readers
}

/** Ends a publish that nobody wants any more. */
export function refuseCancelled({ aborted }: AbortSignal): void {
  if (aborted)
    throw new Refused(
      'not-valid',
      'Publishing was cancelled. Nothing was changed; visitors see what they saw before.',
    )
}

/** Does work on every item, on a few at a time, and returns what came of each. Where one fails, nothing goes on any more when it rejects. */
async function severalAtOnce<T, R>(items: readonly T[], work: (item: T) => Promise<R>): Promise<R[]> {
  const results: R[] = []
  let next = 0
  const goOn = async (): Promise<void> => {
    try {
      for (let i = next++; i < items.length; i = next++) results[i] = await work(items[i]!)
    } catch (error) {
      next = items.length
      throw error
    }
  }
  await allEnded(Array.from({ length: MADE_AT_ONCE }, goOn))
  return results
}

function grouped<T>(items: readonly T[], size: number): T[][] {
  return Array.from({ length: Math.ceil(items.length / size) }, (_, i) =>
    items.slice(i * size, (i + 1) * size),
  )
}
