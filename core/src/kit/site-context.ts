import type { Look } from '../look/look.ts'
import type { Page } from '../page/page.ts'

/** One width of a picture, in the formats it is kept in. Addresses are ready to be written into a page. */
export interface PictureSource {
  readonly width: number
  readonly avif: string
  readonly webp: string
}

/** A picture of the media library as a page shows it. */
export interface Picture {
  readonly id: string
  /** What the library calls it. */
  readonly name: string
  /** In px, after its orientation was applied. */
  readonly width: number
  readonly height: number
  /** The alternative text it was given in the library; a page may give another. */
  readonly alt: string
  /** True where the library says that it says nothing; a page may say otherwise by giving it a text. */
  readonly isDecoration?: boolean
  /** Sorted from narrow to wide, never wider than the picture itself. */
  readonly sources: readonly PictureSource[]
  /** For browsers that read none of the formats above. */
  readonly fallback: string
}

/** A file of the library that pages link to, such as a programme to print. */
export interface SiteFile {
  readonly id: string
  /** What the library calls it, with its ending. */
  readonly name: string
  /** Its kind, told by its bytes: an ending such as "pdf". */
  readonly type: string
  readonly bytes: number
  /** Where it is, ready to be written into a page. */
  readonly path: string
}

/** A line of the navigation: a page of the site, or an address elsewhere. */
export interface NavigationEntry {
  readonly label: string
  readonly path: string
  /** True for the page that is shown. */
  readonly current: boolean
  /** The lines under it. */
  readonly inside: readonly NavigationEntry[]
}

/** A page as other pages of the site can speak of it. */
export interface TreePage {
  readonly id: string
  readonly parentId: string | null
  readonly title: string
  readonly path: string
  readonly description: string
}

/** The pages of a site, as blocks that lead to other pages ask for them. */
export interface PageTree {
  /** Returns a page; undefined where it can't be linked to. */
  readonly find: (id: string) => TreePage | undefined
  /** Returns the sub-pages of a page, in their order. */
  readonly inside: (id: string) => readonly TreePage[]
}

/** An icon of the site, for browser tabs and home screens. */
export interface SiteIcon {
  readonly rel: 'icon' | 'apple-touch-icon'
  readonly href: string
  readonly type?: string
  readonly sizes?: string
}

/** What a page needs to know of its site to be shown. Links and pictures of pages are ids, and this says what they stand for. */
export interface SiteContext {
  readonly site: {
    readonly name: string
    readonly language: string
    readonly home: string
    /** Where the site is published, without a slash at the end; for what needs whole addresses. */
    readonly origin?: string
    /** Links to its icons, best first. */
    readonly icons?: readonly SiteIcon[]
    /** The picture shown where a page without one of its own is shared. */
    readonly sharePicture?: string | null
  }
  readonly look: Look
  /** Addresses by page id, starting and ending with a slash. Pages that can't be linked to are absent. */
  readonly paths: Readonly<Record<string, string>>
  readonly navigation: readonly NavigationEntry[]
  /** The page that is shown. */
  readonly page: { readonly id: string; readonly title: string }
  /** The pages that can be linked to. */
  readonly tree: PageTree
  readonly pictures: Readonly<Record<string, Picture>>
  readonly files: Readonly<Record<string, SiteFile>>
  /** Documents that are shown in the place of their instances, by their ids. */
  readonly parts: Readonly<Record<string, Page>>
  /** Where the look's font files are served, with a slash at the end. */
  readonly fontBase: string
  /** What font files are called there, where that is not their own name. */
  readonly fontNames?: Readonly<Record<string, string>>
  /**
   * `canvas` marks elements with `data-` attributes so that they can be selected and typed into, and shows what is empty;
   * `measure` marks what visitors get with the ids of nodes. Nothing else differs.
   */
  readonly purpose: 'publish' | 'canvas' | 'measure'
}
