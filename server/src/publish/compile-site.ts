/** A site as files: every live page, its stylesheet, and the pictures and fonts they use. */
import { createHash } from 'node:crypto'
import { copyFile, link, realpath } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import {
  defaultRegistry,
  navigationOf,
  publishedPage,
  renderPage,
  type Look,
  themedLook,
  type NavigationItem,
  type PageSettings,
  type Page,
  type Picture,
  type SiteContext,
  type SiteFile,
  type SiteIcon,
} from '@gullyline/core'
import { makeFolder } from '../http/make-folder.ts'
import type { SiteRow } from '../db/rows.ts'
import { fontFolder, liveDir } from '../media/folders.ts'
import type { Services } from '../services.ts'
import { robotsTxt, sitemapXml } from './crawlers.ts'
import { hashedFonts } from './hashed-fonts.ts'
import { writeIcons } from './icons.ts'
import { writeCompressed } from './write-compressed.ts'
import { writeRedirects } from './redirects.ts'

export interface LivePage extends PageSettings {
  readonly id: string
  readonly path: string
  readonly parentId: string | null
  /** When its version was saved. */
  readonly savedAt: Date
  readonly document: Page
}

/** A file of the library that a page shows or links to, and that is not there. */
export interface MissingFile {
  readonly page: LivePage
  /** Its address. */
  readonly path: string
  /** What the library calls it. */
  readonly name: string
}

export interface LiveSite {
  readonly site: SiteRow
  /** In the order of the tree. */
  readonly pages: readonly LivePage[]
  /** Where addresses lead that pages had before. */
  readonly redirects: Readonly<Record<string, string>>
  readonly pictures: Readonly<Record<string, Picture>>
  readonly files: Readonly<Record<string, SiteFile>>
}

/**
 * Writes the site into `folder`, which must not exist yet. The same site always gives the same files. Gives the files
 * of the library that could not be found, neither where they belong nor in what visitors see now.
 */
export async function compileSite(
  live: LiveSite,
  folder: string,
  { dataDir, liveOrigin }: Pick<Services, 'dataDir' | 'liveOrigin'>,
): Promise<readonly MissingFile[]> {
  const library = libraryPaths(live)
  const shownOn = new Map<string, Set<LivePage>>()
  const fonts = new Set<string>()
  const to = { folder, before: await realpath(liveDir(dataDir)).catch(() => folder) }
  const icons = await writeIcons(to, live, dataDir)
  const fontNames = await hashedFonts(live.site.look as Look, dataDir)
  for (const page of live.pages) {
    const rendered = renderPage(
      {
        page: publishedPage(page.document, defaultRegistry),
        header: live.site.header as Page,
        footer: live.site.footer as Page,
        title: page.title,
        description: page.description,
        isListed: page.isListed,
        sharePicture: page.sharePicture,
        ...(page.id === live.site.notFoundPageId ? {} : { path: page.path }),
      },
      defaultRegistry,
      contextFor(live, page, { origin: liveOrigin, icons, fontNames }),
      fileLink,
    )
    const isNotFound = page.id === live.site.notFoundPageId
    await writeCompressed(to, isNotFound ? NOT_FOUND_FILE : `${page.path}index.html`, rendered.html)
    await writeCompressed(to, fileLink(rendered.css, 'css').href, rendered.css)
    if (rendered.script !== '')
      await writeCompressed(to, fileLink(rendered.script, 'js').href, rendered.script)
    for (const [path] of rendered.html.matchAll(LIBRARY_FILE))
      if (library.has(path)) shownOn.set(path, (shownOn.get(path) ?? new Set()).add(page))
    for (const [path] of rendered.css.matchAll(/\/fonts\/[\w.-]+/g)) fonts.add(path)
  }
  await makeFolder(folder)
  await writeCompressed(to, '/robots.txt', robotsTxt(liveOrigin))
  const listed = live.pages.filter(({ id, isListed }) => isListed && id !== live.site.notFoundPageId)
  await writeCompressed(to, '/sitemap.xml', sitemapXml(liveOrigin, listed))
  await writeRedirects(folder, live.redirects)
  const fileOf = new Map(Object.entries(fontNames).map(([file, name]) => [`/fonts/${name}`, file]))
  for (const path of fonts)
    await linkInto(folder, path, [
      join(fontFolder(dataDir), fileOf.get(path) ?? path.slice('/fonts/'.length)),
    ])
  const missing: MissingFile[] = []
  for (const [path, pages] of shownOn) {
    const isThere = await linkInto(folder, path, [join(dataDir, path), join(liveDir(dataDir), path)])
    if (isThere) continue
    for (const page of pages) missing.push({ page, path, name: library.get(path) ?? path })
  }
  return missing
}

/** What static hosts look for, and our own server: the page for addresses that do not exist. */
const NOT_FOUND_FILE = '/404.html'

/** What a page may show or link to of the library; an address elsewhere can look like that, and is left alone. */
const LIBRARY_FILE = /\/(?:media|files)\/[a-z0-9]+\/[a-z0-9-]+\.[a-z0-9]+/g

/** The addresses of all files of the library, each with what the library calls it. */
function libraryPaths({ pictures, files }: LiveSite): ReadonlyMap<string, string> {
  return new Map([
    ...Object.values(pictures).flatMap(({ name, sources, fallback }) =>
      [fallback, ...sources.flatMap(({ avif, webp }) => [avif, webp])].map((path) => [path, name] as const),
    ),
    ...Object.values(files).map(({ name, path }) => [path, name] as const),
  ])
}

interface Published {
  readonly origin: string
  readonly icons: readonly SiteIcon[]
  readonly fontNames: Readonly<Record<string, string>>
}

function contextFor(live: LiveSite, current: LivePage, { origin, icons, fontNames }: Published): SiteContext {
  const { sharePicture } = live.site
  const labelled = live.pages.map((page) => ({ ...page, label: page.navigationLabel || page.title }))
  return {
    site: { name: live.site.name, language: live.site.language, home: '/', origin, icons, sharePicture },
    look: themedLook(live.site.look as Look, current.theme),
    paths: Object.fromEntries(live.pages.map((page) => [page.id, page.path])),
    navigation: navigationOf(live.site.navigation as NavigationItem[], labelled, current.id),
    page: { id: current.id, title: current.title },
    tree: live.pages,
    pictures: live.pictures,
    files: live.files,
    fontBase: '/fonts/',
    fontNames,
    purpose: 'publish',
  }
}

/** Named by its content, so that browsers may keep it for ever. */
function fileLink(content: string, type: 'css' | 'js'): { href: string; integrity: string } {
  const digest = createHash('sha256').update(content).digest()
  return {
    href: `/${type === 'css' ? 'styles' : 'scripts'}/${digest.toString('hex').slice(0, 12)}.${type}`,
    integrity: `sha256-${digest.toString('base64')}`,
  }
}

/**
 * Puts the first of these files that exists into the folder; false when none does. A hard link costs no room; where the
 * file system has none, a copy does the same.
 */
async function linkInto(folder: string, path: string, sources: readonly string[]): Promise<boolean> {
  const file = join(folder, path)
  await makeFolder(dirname(file))
  for (const source of sources) {
    try {
      await link(source, file).catch(() => copyFile(source, file))
      return true
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error
    }
  }
  return false
}
