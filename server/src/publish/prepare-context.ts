/** Prepares what all pages of a publish are made with. */
import {
  themedLook,
  withCurrent,
  type Look,
  type NavigationItem,
  type SiteContext,
  type TreePage,
} from '@gullyline/core'
import { programId } from '../http/program-id.ts'
import type { ContentStore } from './content-store.ts'
import { hashedFonts } from './hashed-fonts.ts'
import { writeIcons } from './icons.ts'
import type { LivePage, LiveSite } from './live-site.ts'
import { digestOf, inNavigation, liveNavigation } from './page-keys.ts'
import { SharedFiles } from './shared-files.ts'
import { touchedSince, type ReadSite } from './site-changes.ts'

/** What a site was compiled from. */
export interface MadeFrom extends ReadSite {
  /** A digest of what every page is made from. */
  readonly common: string
  /** What keepers arranged of the navigation. */
  readonly items: readonly NavigationItem[]
}

/** Where the files of the library are, and where visitors see the site, without a slash at the end. */
export interface Where {
  readonly dataDir: string
  readonly liveOrigin: string
}

/** So often the pages under one page are looked for among all; from then on all are grouped. */
const LOOKED_FOR = 8

/** The pages under each page, in the order of the tree. */
function childrenIn(pages: readonly LivePage[]): (id: string) => readonly LivePage[] {
  const found = new Map<string, readonly LivePage[]>()
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
  return (id) => {
    const known = found.get(id)
    if (known) return known
    if (found.size >= LOOKED_FOR) return (groups ??= grouped()).get(id) ?? []
    const children = pages.filter(({ parentId }) => parentId === id)
    found.set(id, children)
    return children
  }
}

function treePageOf({ id, parentId, path, title, settings: { description } }: LivePage): TreePage {
  return { id, parentId, path, title, description }
}

/** What pages are made with, prepared once for all of them. */
export interface PreparedContext {
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

export async function prepareContext(
  live: LiveSite,
  { store, dataDir, liveOrigin, before }: ToPrepare,
): Promise<PreparedContext> {
  const { site } = live
  const { icons, files: iconFiles } = await writeIcons(store, live, dataDir)
  const fontNames = await hashedFonts(site.look as Look, dataDir)
  const items = site.navigation as NavigationItem[]
  const lines = linesOf(live, before)
  const { name, language, sharePicture } = site
  const about = { name, language, home: '/', origin: liveOrigin, icons, sharePicture }
  const childrenOf = childrenIn(live.pages)
  const readable = {
    paths: pathsOf(live, before),
    tree: {
      find: (id: string) => {
        const page = live.byId.get(id)
        return page && treePageOf(page)
      },
      inside: (id: string) => childrenOf(id).map(treePageOf),
    },
    pictures: live.pictures,
    files: live.files,
    parts: Object.fromEntries(Object.entries(live.parts).map(([id, { document }]) => [id, document])),
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
  const common = digestOf([
    programId(),
    about,
    site.look,
    live.header.document,
    live.footer.document,
    fontNames,
  ])
  const { pages, byId, since } = live
  const madeFrom = { ...readable, pages, byId, since, childrenOf, items, lines, common }
  const fontFiles = new Map(Object.entries(fontNames).map(([file, name]) => [`/fonts/${name}`, file]))
  return { of, madeFrom, shared: new SharedFiles(store), iconFiles, fontFiles }
}

/** The lines of the navigation: mostly those of before. */
function linesOf(live: LiveSite, before: MadeFrom | undefined): MadeFrom['lines'] {
  const items = live.site.navigation as NavigationItem[]
  const touched = before && touchedSince(before, live)
  if (before && touched && JSON.stringify(before.items) === JSON.stringify(items)) {
    const pages = [before.byId, live.byId].flatMap((byId) => [...touched].flatMap((id) => byId.get(id) ?? []))
    if (!pages.some(inNavigation(items))) return before.lines
  }
  return liveNavigation(items, live.pages)
}

/** The addresses of pages by their ids: mostly those of before. */
function pathsOf(live: LiveSite, before: MadeFrom | undefined): SiteContext['paths'] {
  const touched = before && touchedSince(before, live)
  if (before && touched) {
    const others = [...touched].filter((id) => before.byId.get(id)?.path !== live.byId.get(id)?.path)
    if (others.length === 0) return before.paths
  }
  // Without a prototype it is a dictionary from the beginning: V8 describes the shape of others after each of thousands of keys.
  const paths = Object.create(null) as Record<string, string>
  for (const { id, path } of live.pages) paths[id] = path
  return paths
}
