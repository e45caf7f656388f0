/** A site as files: every live page, its stylesheet, and the pictures and fonts they use. Made again is only what changed. */
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import {
  defaultRegistry,
  recordReads,
  renderPage,
  themedLook,
  withCurrent,
  type Look,
  type NavigationItem,
  type Page,
  type ReadName,
  type SiteContext,
  type TreePage,
} from '@gullyline/core'
import { fontFolder } from '../media/folders.ts'
import { ContentStore } from './content-store.ts'
import {
  robotsTxt,
  SITEMAP,
  sitemapIndexXml,
  sitemapParts,
  sitemapXml,
  type ListedAddress,
  type SitemapPart,
} from './crawlers.ts'
import { hashedFonts } from './hashed-fonts.ts'
import { writeIcons } from './icons.ts'
import type { LivePage, LiveSite } from './live-site.ts'
import type { PageRecord, PageRecords } from './page-records.ts'
import { digestOf, liveNavigation, pageKeys } from './page-keys.ts'
import { changesBetween, Readers, type ReadSite } from './site-changes.ts'
import { Refused } from '../http/errors.ts'
import { programId } from '../http/program-id.ts'
import type { Watch } from '../http/progress.ts'

/** A file of the library that a page shows or links to, and that is not there. */
export interface MissingFile {
  readonly page: LivePage
  /** Its address. */
  readonly path: string
  /** What the library calls it. */
  readonly name: string
}

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

/** What a site was compiled from. */
interface MadeFrom extends ReadSite {
  /** A digest of what every page is made from. */
  readonly common: string
}

/** Where the files of the library are, and where visitors see the site, without a slash at the end. */
interface Where {
  readonly dataDir: string
  readonly liveOrigin: string
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
  const context = await siteContext(live, { store, dataDir, liveOrigin, before: before.madeFrom })
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
  const pages = new Map(before.pages)
  const gone = [...before.pages.keys()].filter((id) => !live.byId.has(id))
  for (const id of gone) pages.delete(id)
  for (const [id, record] of records) pages.set(id, record)
  const listed = live.pages.filter(({ settings, isNotFound }) => settings.isListed && !isNotFound)
  const addresses: Record<string, string> = {
    ...context.iconFiles,
    '/robots.txt': await store.putText(robotsTxt(liveOrigin), '.txt'),
  }
  const sitemap = await writeSitemap(store, { origin: liveOrigin, listed, before: before.sitemap })
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

/** The files of a sitemap, and the pages in each. */
interface WrittenSitemap {
  readonly origin: string
  readonly parts: readonly SitemapPart[]
  readonly addresses: Readonly<Record<string, string>>
}

interface ToList {
  readonly origin: string
  readonly listed: readonly ListedAddress[]
  readonly before: WrittenSitemap | undefined
}

/** Puts the sitemap into the store. Files with the very pages that they had before stay as they are. */
async function writeSitemap(
  store: ContentStore,
  { origin, listed, before }: ToList,
): Promise<WrittenSitemap> {
  const parts = sitemapParts(listed)
  const known = new Map(before?.origin === origin ? before.parts.map((part) => [part.path, part.pages]) : [])
  const addresses: Record<string, string> = {}
  for (const part of parts) {
    const { path, pages } = part
    const last = known.get(path)
    const isSame = last?.length === pages.length && pages.every((page, i) => page === last[i])
    addresses[path] = isSame
      ? before!.addresses[path]!
      : await store.putText(sitemapXml(origin, part), '.xml')
  }
  if (parts.length > 1) addresses[SITEMAP] = await store.putText(sitemapIndexXml(origin, parts), '.xml')
  return { origin, parts, addresses }
}

interface Comparing {
  readonly before: Before
  readonly readers: Readers
  readonly now: MadeFrom
  readonly keyOf: ReturnType<typeof pageKeys>
  readonly store: ContentStore
}

/** Returns the pages that are not what they were. */
async function pagesToMake(
  live: LiveSite,
  { before, readers, now, keyOf, store }: Comparing,
): Promise<LivePage[]> {
  const isOther = othersThan(before, readers, now, keyOf)
  const toMake: LivePage[] = []
  for (const page of live.pages) {
    const record = before.pages.get(page.id)
    if (!record || isOther(page, record)) toMake.push(page)
    // What goes live now must be whole.
    else if (live.goingLive.has(page.id) && !(await store.hasAll(Object.values(record.files))))
      toMake.push(page)
  }
  return toMake
}

/** Tells the pages that are made from something else than before. */
function othersThan(
  before: Before,
  readers: Readers,
  now: MadeFrom,
  keyOf: ReturnType<typeof pageKeys>,
): (page: LivePage, record: PageRecord) => boolean {
  if (before.madeFrom?.common !== now.common) return (page, { key, reads }) => key !== keyOf(page, reads)
  const { pages, reads } = changesBetween(before.madeFrom, now)
  const looked = readers.of(reads)
  for (const { page } of before.missing ?? []) looked.add(page.id)
  return ({ id }, record) =>
    pages.has(id) ||
    (looked.has(id) && (record.key === INCOMPLETE || record.reads.some((name) => reads.has(name))))
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
  const all = await Promise.allSettled(Array.from({ length: MADE_AT_ONCE }, goOn))
  const failed = all.find((one) => one.status === 'rejected')
  if (failed) throw failed.reason
  return results
}

function grouped<T>(items: readonly T[], size: number): T[][] {
  return Array.from({ length: Math.ceil(items.length / size) }, (_, i) =>
    items.slice(i * size, (i + 1) * size),
  )
}

/** What static hosts look for, and our own server: the page for addresses that do not exist. */
const NOT_FOUND_FILE = '/404.html'

interface Making {
  readonly live: LiveSite
  readonly context: PreparedContext
  readonly store: ContentStore
  readonly dataDir: string
}

interface MadePage {
  readonly reads: readonly ReadName[]
  readonly record: Pick<PageRecord, 'reads' | 'files'>
  readonly missing: readonly MissingFile[]
}

async function makePage(
  page: LivePage,
  document: Page,
  { live, context, store, dataDir }: Making,
): Promise<MadePage> {
  const recording = recordReads(context.of(page))
  const { description, isListed, sharePicture } = page.settings
  const rendered = renderPage(
    {
      page: document,
      header: live.header,
      footer: live.footer,
      title: page.title,
      description,
      isListed,
      sharePicture,
      ...(page.isNotFound ? {} : { path: page.path }),
    },
    defaultRegistry,
    recording.context,
    (content, type) => context.shared.link(content, type),
  )
  const reads = recording.reads()
  const address = page.isNotFound ? NOT_FOUND_FILE : `${page.path}index.html`
  const files: Record<string, string> = {
    [address]: await store.putText(rendered.html, '.html'),
  }
  for (const [content, type] of [
    [rendered.css, 'css'],
    [rendered.script, 'js'],
  ] as const)
    if (content !== '')
      files[context.shared.link(content, type).href] = await context.shared.put(content, type)
  for (const [path] of rendered.css.matchAll(/\/fonts\/[\w.-]+/g)) {
    const font = context.fontFiles.get(path) ?? path.slice('/fonts/'.length)
    const name = await store.adopt(path, [join(fontFolder(dataDir), font)])
    if (name !== undefined) files[path] = name
  }
  const missing: MissingFile[] = []
  for (const { path, name } of reads.flatMap((read) => libraryFiles(live, read))) {
    const stored = await store.adopt(path, [join(dataDir, path)])
    if (stored === undefined) missing.push({ page, path, name })
    else files[path] = stored
  }
  return { reads, record: { reads, files }, missing }
}

/** Returns the files of the library that a page shows or links to, if what it read is a picture or a file. */
function libraryFiles(
  { pictures, files }: Pick<LiveSite, 'pictures' | 'files'>,
  read: ReadName,
): readonly { readonly path: string; readonly name: string }[] {
  const [what, id = ''] = read.split(':', 2)
  if (what === 'picture' && Object.hasOwn(pictures, id)) {
    const { name, fallback, sources } = pictures[id]!
    return [fallback, ...sources.flatMap(({ avif, webp }) => [avif, webp])].map((path) => ({ path, name }))
  }
  if (what === 'file' && Object.hasOwn(files, id)) return [files[id]!]
  return []
}

/** The pages under each page, grouped when they are first asked for. */
function childrenIn(pages: readonly LivePage[]): (id: string) => readonly LivePage[] {
  let groups: Map<string | null, LivePage[]> | undefined
  const grouped = (): Map<string | null, LivePage[]> => {
    const made = new Map<string | null, LivePage[]>()
    for (const page of pages) {
      const group = made.get(page.parentId)
      if (group) group.push(page)
      else made.set(page.parentId, [page])
    }
    return made
  }
  return (id) => (groups ??= grouped()).get(id) ?? []
}

function treePageOf({ id, parentId, path, title, settings: { description } }: LivePage): TreePage {
  return { id, parentId, path, title, description }
}

/** What pages are made with, prepared once for all of them. */
interface PreparedContext {
  readonly of: (page: LivePage) => SiteContext
  readonly madeFrom: MadeFrom
  readonly shared: SharedFiles
  readonly iconFiles: Readonly<Record<string, string>>
  /** The file of the look that is published at an address. */
  readonly fontFiles: ReadonlyMap<string, string>
}

interface ToPrepare extends Where {
  readonly store: ContentStore
  readonly before: MadeFrom | undefined
}

async function siteContext(
  live: LiveSite,
  { store, dataDir, liveOrigin, before }: ToPrepare,
): Promise<PreparedContext> {
  const { site } = live
  const { icons, files: iconFiles } = await writeIcons(store, live, dataDir)
  const fontNames = await hashedFonts(site.look as Look, dataDir)
  const lines = liveNavigation(site.navigation as NavigationItem[], live.pages)
  const { name, language, sharePicture } = site
  const about = { name, language, home: '/', origin: liveOrigin, icons, sharePicture }
  const childrenOf = childrenIn(live.pages)
  const readable = {
    paths: pathsOf(live.pages, before),
    tree: {
      find: (id: string) => {
        const page = live.byId.get(id)
        return page && treePageOf(page)
      },
      inside: (id: string) => childrenOf(id).map(treePageOf),
    },
    pictures: live.pictures,
    files: live.files,
  }
  const of = (page: LivePage): SiteContext => ({
    ...readable,
    site: about,
    look: themedLook(site.look as Look, page.settings.theme),
    navigation: withCurrent(lines, page.id),
    page: { id: page.id, title: page.title },
    fontBase: '/fonts/',
    fontNames,
    purpose: 'publish',
  })
  const common = digestOf([programId(), about, site.look, live.header, live.footer, fontNames])
  const madeFrom = { ...readable, pages: live.pages, byId: live.byId, childrenOf, lines, common }
  const fontFiles = new Map(Object.entries(fontNames).map(([file, name]) => [`/fonts/${name}`, file]))
  return { of, madeFrom, shared: new SharedFiles(store), iconFiles, fontFiles }
}

/** The addresses of pages by their ids: nearly always those of before. */
function pathsOf(pages: readonly LivePage[], before: MadeFrom | undefined): SiteContext['paths'] {
  const isSame = (page: LivePage, i: number): boolean => {
    const known = before!.pages[i]
    return known === page || (known?.id === page.id && known.path === page.path)
  }
  if (before?.pages.length === pages.length && pages.every(isSame)) return before.paths
  return Object.fromEntries(pages.map(({ id, path }) => [id, path]))
}

interface FileLink {
  readonly href: string
  readonly integrity: string
}

/** Styles and scripts, of which many pages have the same: each is digested and put into the store once. */
class SharedFiles {
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
