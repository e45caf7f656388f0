/** Prepares what a page is drawn with outside of a release: as it is edited, or to be measured. */
import { join } from 'node:path'
import {
  navigationOf,
  pageTree,
  settingsOf,
  themedLook,
  type Library,
  type Look,
  type NavigationItem,
  type NavigationPage,
  type PageSummary,
  type Picture,
  type ReadName,
  type SessionParts,
  type SiteContext,
  type TreePage,
} from '@gullyline/core'
import type { SiteRow } from '../db/rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { findSite } from '../documents/site-row.ts'
import { fontFolder } from '../media/folders.ts'
import { listFiles, listPictures } from '../media/store.ts'
import { listPages } from '../pages/store.ts'
import { libraryFiles } from './make-page.ts'

/** All that a page is drawn from. */
export interface ToDraw {
  readonly draft: Required<SessionParts>
  readonly site: SiteRow
  /** The pages of the site as this one speaks of them, in the order of the tree. */
  readonly pages: readonly (TreePage & NavigationPage)[]
  readonly library: Library
}

/** What stands around any page of a site. */
interface Around extends Pick<ToDraw, 'site' | 'library'> {
  readonly pages: readonly PageSummary[]
}

export async function readAround(at: SiteData): Promise<Around> {
  return {
    site: await findSite(at),
    pages: await listPages(at),
    library: { pictures: await listPictures(at), files: await listFiles(at) },
  }
}

interface Where {
  /** The path that all addresses of files begin with, without a slash at the end; empty for none. */
  readonly prefix: string
  /** Where links to a page lead. */
  readonly pathOf: (page: TreePage) => string
  readonly purpose: SiteContext['purpose']
}

export function pageContext(
  pageId: string,
  { draft, site, pages, library }: ToDraw,
  { prefix, pathOf, purpose }: Where,
): SiteContext {
  const settings = settingsOf(draft.page)
  const drawn = pages.map((page) => ({ ...page, path: pathOf(page) }))
  const paths = Object.fromEntries(drawn.map(({ id, path }) => [id, path]))
  return {
    site: { name: site.name, language: site.language, home: paths[site.homePageId] ?? '/' },
    look: themedLook(site.look as Look, settings.theme),
    paths,
    navigation: navigationOf(site.navigation as NavigationItem[], drawn, pageId),
    page: { id: pageId, title: settings.title },
    tree: pageTree(drawn),
    pictures: mapValues(library.pictures, (picture) => pictureAt(prefix, picture)),
    files: mapValues(library.files, (file) => ({ ...file, path: prefix + file.path })),
    parts: draft.parts,
    fontBase: `${prefix}/fonts/`,
    purpose,
  }
}

interface Shown {
  readonly library: Library
  readonly look: Look
  readonly dataDir: string
}

/** The files that a page shows by what it read of its site: where each is on the disk, by its address without a prefix. */
export function shownFiles(
  reads: readonly ReadName[],
  { library, look, dataDir }: Shown,
): ReadonlyMap<string, string> {
  const { words, titles } = look.fonts
  const fonts = [...words.files, ...titles.files]
  return new Map([
    ...reads
      .flatMap((name) => libraryFiles(library, name))
      .map(({ path }) => [path, join(dataDir, path)] as const),
    ...fonts.map(({ file }) => [`/fonts/${file}`, join(fontFolder(dataDir), file)] as const),
  ])
}

function pictureAt(prefix: string, picture: Picture): Picture {
  const sources = picture.sources.map(({ width, avif, webp }) => ({
    width,
    avif: prefix + avif,
    webp: prefix + webp,
  }))
  return { ...picture, sources, fallback: prefix + picture.fallback }
}

function mapValues<T>(record: Readonly<Record<string, T>>, made: (value: T) => T): Record<string, T> {
  return Object.fromEntries(Object.entries(record).map(([key, value]) => [key, made(value)]))
}
