/** A site as files: every live page, its stylesheet, and the pictures and fonts they use. Made again is only what changed. */
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import {
  defaultRegistry,
  pageTree,
  recordReads,
  renderPage,
  themedLook,
  withCurrent,
  type Look,
  type NavigationItem,
  type Page,
  type ReadName,
  type SiteContext,
} from '@gullyline/core'
import { fontFolder } from '../media/folders.ts'
import { ContentStore } from './content-store.ts'
import { robotsTxt, sitemapFiles } from './crawlers.ts'
import { hashedFonts } from './hashed-fonts.ts'
import { writeIcons } from './icons.ts'
import type { LivePage, LiveSite } from './live-site.ts'
import type { PageRecord, PageRecords } from './page-records.ts'
import { changedReads, digestOf, liveNavigation, pageKeys, type ReadSite } from './page-keys.ts'
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
  /** The files in the content store of what is no page, by address. */
  readonly addresses: Readonly<Record<string, string>>
  /** Files of the library that could not be found. */
  readonly missing: readonly MissingFile[]
  readonly madeFrom: MadeFrom
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
type Before = Pick<CompiledSite, 'pages'> & Partial<Pick<CompiledSite, 'madeFrom'>>

/** The key of no page. */
const INCOMPLETE = ''
/** So many documents are read at once: enough that a page seldom waits for its own, and few enough to hold. */
const READ_AT_ONCE = 20

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
  const context = await siteContext(live, { store, dataDir, liveOrigin })
  const { madeFrom } = context
  const keyOf = pageKeys({ common: madeFrom.common, lines: madeFrom.lines, site: madeFrom })
  const isAlike = sameInputs(before, madeFrom, keyOf)
  const isSame = async (page: LivePage): Promise<boolean> => {
    const record = Object.hasOwn(before.pages, page.id) ? before.pages[page.id] : undefined
    if (!record || !isAlike(page, record)) return false
    return !live.goingLive.has(page.id) || store.hasAll(Object.values(record.files))
  }
  const changed: LivePage[] = []
  for (const page of live.pages) if (!(await isSame(page))) changed.push(page)
  const records: Record<string, PageRecord> = {}
  const missing: MissingFile[] = []
  for (const group of grouped(changed, READ_AT_ONCE)) {
    const documents = await live.readDocuments(group)
    for (const page of group) {
      refuseCancelled(signal)
      const made = await makePage(page, documents.get(page.id)!, { live, context, store, dataDir })
      const { version, settings, savedAt } = page
      // A page that lacks a file is made again each time, until the file is there.
      const key = made.missing.length > 0 ? INCOMPLETE : keyOf(page, made.reads)
      records[page.id] = { version, settings, savedAt: savedAt.toISOString(), key, ...made.record }
      missing.push(...made.missing)
      onProgress(Object.keys(records).length, changed.length)
    }
  }
  const pages = Object.fromEntries(live.pages.map(({ id }) => [id, records[id] ?? before.pages[id]!]))
  const listed = live.pages.filter(({ settings, isNotFound }) => settings.isListed && !isNotFound)
  const addresses: Record<string, string> = {
    ...context.iconFiles,
    '/robots.txt': await store.putText(robotsTxt(liveOrigin), '.txt'),
  }
  for (const [path, text] of Object.entries(sitemapFiles(liveOrigin, listed)))
    addresses[path] = await store.putText(text, '.xml')
  return { pages, addresses, missing, madeFrom }
}

/** Tells whether a page is made from what it was made from before. */
function sameInputs(
  { madeFrom: before }: Before,
  now: MadeFrom,
  keyOf: ReturnType<typeof pageKeys>,
): (page: LivePage, record: PageRecord) => boolean {
  if (before?.common !== now.common) return (page, { key, reads }) => key === keyOf(page, reads)
  const changed = changedReads(before, now)
  const pages = new Set(before.pages)
  return (page, { key, reads }) =>
    pages.has(page) && key !== INCOMPLETE && (changed.size === 0 || !reads.some((name) => changed.has(name)))
}

/** Ends a publish that nobody wants any more. */
export function refuseCancelled({ aborted }: AbortSignal): void {
  if (aborted)
    throw new Refused(
      'not-valid',
      'Publishing was cancelled. Nothing was changed; visitors see what they saw before.',
    )
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
    fileLink,
  )
  const reads = recording.reads()
  const address = page.isNotFound ? NOT_FOUND_FILE : `${page.path}index.html`
  const files: Record<string, string> = {
    [address]: await store.putText(rendered.html, '.html'),
    [fileLink(rendered.css, 'css').href]: await store.putText(rendered.css, '.css'),
  }
  if (rendered.script !== '')
    files[fileLink(rendered.script, 'js').href] = await store.putText(rendered.script, '.js')
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

/** What pages are made with, prepared once for all of them. */
interface PreparedContext {
  readonly of: (page: LivePage) => SiteContext
  readonly madeFrom: MadeFrom
  readonly iconFiles: Readonly<Record<string, string>>
  /** The file of the look that is published at an address. */
  readonly fontFiles: ReadonlyMap<string, string>
}

async function siteContext(
  live: LiveSite,
  { store, dataDir, liveOrigin }: Where & { readonly store: ContentStore },
): Promise<PreparedContext> {
  const { site } = live
  const { icons, files: iconFiles } = await writeIcons(store, live, dataDir)
  const fontNames = await hashedFonts(site.look as Look, dataDir)
  const lines = liveNavigation(site.navigation as NavigationItem[], live.pages)
  const { name, language, sharePicture } = site
  const about = { name, language, home: '/', origin: liveOrigin, icons, sharePicture }
  const shared = {
    paths: Object.fromEntries(live.pages.map((page) => [page.id, page.path])),
    tree: pageTree(
      live.pages.map(({ id, parentId, path, title, settings }) => ({
        id,
        parentId,
        path,
        title,
        description: settings.description,
      })),
    ),
    pictures: live.pictures,
    files: live.files,
  }
  const of = (page: LivePage): SiteContext => ({
    ...shared,
    site: about,
    look: themedLook(site.look as Look, page.settings.theme),
    navigation: withCurrent(lines, page.id),
    page: { id: page.id, title: page.title },
    fontBase: '/fonts/',
    fontNames,
    purpose: 'publish',
  })
  const common = digestOf([programId(), about, site.look, live.header, live.footer, fontNames])
  const madeFrom = { ...shared, pages: live.pages, lines, common }
  const fontFiles = new Map(Object.entries(fontNames).map(([file, name]) => [`/fonts/${name}`, file]))
  return { of, madeFrom, iconFiles, fontFiles }
}

/** Named by its content, so that browsers may keep it for ever. */
function fileLink(content: string, type: 'css' | 'js'): { href: string; integrity: string } {
  const digest = createHash('sha256').update(content).digest()
  return {
    href: `/${type === 'css' ? 'styles' : 'scripts'}/${digest.toString('hex').slice(0, 12)}.${type}`,
    integrity: `sha256-${digest.toString('base64')}`,
  }
}
