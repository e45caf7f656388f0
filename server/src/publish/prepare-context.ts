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
import { digestOf, liveNavigation } from './page-keys.ts'
import { SharedFiles } from './shared-files.ts'
import type { ReadSite } from './site-changes.ts'

/** What a site was compiled from. */
export interface MadeFrom extends ReadSite {
  /** A digest of what every page is made from. */
  readonly common: string
}

/** Where the files of the library are, and where visitors see the site, without a slash at the end. */
export interface Where {
  readonly dataDir: string
  readonly liveOrigin: string
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
  // Without a prototype it is a dictionary from the beginning: V8 describes the shape of others after each of thousands of keys.
  const paths = Object.create(null) as Record<string, string>
  for (const { id, path } of pages) paths[id] = path
  return paths
}
