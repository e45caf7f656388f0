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
  type Manifest,
  type NavigationItem,
  type Page,
  type ReadName,
  type SiteContext,
} from '@gullyline/core'
import { fontFolder } from '../media/folders.ts'
import type { Services } from '../services.ts'
import { ContentStore } from './content-store.ts'
import { robotsTxt, sitemapXml } from './crawlers.ts'
import { hashedFonts } from './hashed-fonts.ts'
import { writeIcons } from './icons.ts'
import type { LivePage, LiveSite } from './live-site.ts'
import { writeRecords, type PageRecord, type PageRecords } from './page-records.ts'
import { liveNavigation, pageKeys } from './page-keys.ts'
import { programId } from '../http/program-id.ts'

/** A file of the library that a page shows or links to, and that is not there. */
export interface MissingFile {
  readonly page: LivePage
  /** Its address. */
  readonly path: string
  /** What the library calls it. */
  readonly name: string
}

export interface CompiledSite {
  readonly manifest: Manifest
  readonly pages: PageRecords
  /** Files of the library that could not be found. */
  readonly missing: readonly MissingFile[]
}

/** The key of no page. */
const INCOMPLETE = ''
/** So many documents are read at once: enough that a page seldom waits for its own, and few enough to hold. */
const READ_AT_ONCE = 20

/**
 * Puts the files of the site into the content store, and returns what each address shows. Pages that `before` has with
 * the same key keep their files. The same site always gives the same result, whatever `before` is.
 */
export async function compileSite(
  live: LiveSite,
  before: PageRecords,
  { dataDir, liveOrigin }: Pick<Services, 'dataDir' | 'liveOrigin'>,
): Promise<CompiledSite> {
  const store = new ContentStore(dataDir)
  const context = await siteContext(live, { store, dataDir, liveOrigin })
  const keyOf = pageKeys({ parts: context.parts, lines: context.lines, site: context.shared })
  const isSame = async (page: LivePage): Promise<boolean> => {
    const record = Object.hasOwn(before, page.id) ? before[page.id] : undefined
    if (!record || record.key !== keyOf(page, record.reads)) return false
    return !page.isGoingLive || store.hasAll(Object.values(record.files))
  }
  const changed: LivePage[] = []
  for (const page of live.pages) if (!(await isSame(page))) changed.push(page)
  const records: Record<string, PageRecord> = {}
  const missing: MissingFile[] = []
  for (const group of grouped(changed, READ_AT_ONCE)) {
    const documents = await live.readDocuments(group)
    for (const page of group) {
      const made = await makePage(page, documents.get(page.id)!, { live, context, store, dataDir })
      const { version, settings, savedAt } = page
      // A page that lacks a file is made again each time, until the file is there.
      const key = made.missing.length > 0 ? INCOMPLETE : keyOf(page, made.reads)
      records[page.id] = { version, settings, savedAt: savedAt.toISOString(), key, ...made.record }
      missing.push(...made.missing)
    }
  }
  const pages = Object.fromEntries(live.pages.map(({ id }) => [id, records[id] ?? before[id]!]))
  const listed = live.pages.filter(({ settings, isNotFound }) => settings.isListed && !isNotFound)
  const addresses = {
    ...Object.assign({}, ...Object.values(pages).map(({ files }) => files)),
    ...context.iconFiles,
    '/robots.txt': await store.putText(robotsTxt(liveOrigin), '.txt'),
    '/sitemap.xml': await store.putText(sitemapXml(liveOrigin, listed), '.xml'),
  } as Record<string, string>
  const manifest = { addresses, redirects: live.redirects, records: await writeRecords(store, pages) }
  return { manifest, pages, missing }
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
  /** What every page is made from. */
  readonly parts: readonly unknown[]
  readonly lines: ReturnType<typeof liveNavigation>
  readonly shared: Pick<SiteContext, 'paths' | 'pictures' | 'files' | 'tree'>
  readonly iconFiles: Readonly<Record<string, string>>
  /** The file of the look that is published at an address. */
  readonly fontFiles: ReadonlyMap<string, string>
}

async function siteContext(
  live: LiveSite,
  { store, dataDir, liveOrigin }: Pick<Services, 'dataDir' | 'liveOrigin'> & { readonly store: ContentStore },
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
  const parts = [programId(), about, site.look, live.header, live.footer, fontNames]
  const fontFiles = new Map(Object.entries(fontNames).map(([file, name]) => [`/fonts/${name}`, file]))
  return { of, parts, lines, shared, iconFiles, fontFiles }
}

/** Named by its content, so that browsers may keep it for ever. */
function fileLink(content: string, type: 'css' | 'js'): { href: string; integrity: string } {
  const digest = createHash('sha256').update(content).digest()
  return {
    href: `/${type === 'css' ? 'styles' : 'scripts'}/${digest.toString('hex').slice(0, 12)}.${type}`,
    integrity: `sha256-${digest.toString('base64')}`,
  }
}
