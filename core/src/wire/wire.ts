/** What server and editor say to each other, as JSON. */
import type { Problem } from '../blocks/registry.ts'
import type { Look } from '../look/look.ts'
import type { Page } from '../page/page.ts'
import type { NavigationItem } from '../site/navigation.ts'
import type { FrameName, SessionParts, SharedName } from '../site/session-page.ts'
import type { PartType } from '../reuse/part-facts.ts'
import type { LinkedPart, PartVersions } from './parts.ts'
import type { PageMore, PageSettings } from '../site/page-settings.ts'
import type { Picture, SiteFile } from '../kit/site-context.ts'

export type { PageMore }

/** The one shape of every error the server answers with. */
export interface ErrorBody {
  /** For programs; see `ErrorCode`. */
  readonly code: ErrorCode
  /** For people: what happened, what was kept, what to do. */
  readonly message: string
  readonly problems: readonly Problem[]
  /** With `stale-save`: the version that is newer than the one the save was made from. */
  readonly current?: VersionInfo
  /** With `stale-save` of several documents at once: those that have a newer version, with that version. */
  readonly stale?: readonly StaleDocument[]
}

export interface StaleDocument {
  readonly documentId: string
  readonly current: VersionInfo
}

export type ErrorCode =
  | 'not-found'
  | 'malformed'
  | 'not-valid'
  | 'stale-save'
  | 'page-deleted'
  | 'stale-publish'
  | 'journal-full'
  | 'address-taken'
  | 'name-taken'
  | 'in-use'
  | 'has-problems'
  | 'too-large'
  | 'foreign-origin'
  | 'never-saved'
  | 'not-signed-in'
  | 'not-allowed'
  | 'wrong-password'
  | 'too-many-tries'
  | 'busy'
  | 'storage'
  | 'internal'

/** What a person may do: editors change pages, reviewers look and publish, the site keeper does both and keeps the site. */
export type Role = 'editor' | 'reviewer' | 'keeper'

export const ROLES: readonly Role[] = ['editor', 'reviewer', 'keeper']

/** Somebody with an account. */
export interface Person {
  readonly id: string
  /** What they sign in with. */
  readonly login: string
  /** What others see, such as beside a version. */
  readonly name: string
  readonly role: Role
}

/** Who is signed in, and the sites that they work on. */
export interface Account extends Person {
  readonly sites: readonly SiteName[]
}

export interface SiteName {
  readonly id: string
  readonly name: string
  /** The name that visitors find it under; null for the site of the installation's own address. */
  readonly host: string | null
}

/** Somebody with an account, as the keeper of a site sees them. */
export interface SitePerson extends Person {
  /** Whether they work on the site. */
  readonly isHere: boolean
}

/** A site to be added. */
export interface NewSiteRequest {
  readonly name: string
  readonly language: string
  /** The name that visitors find it under, such as `school.example.org`. No other site has it. */
  readonly host: string
  /** The id of the site whose look it begins with. */
  readonly like: string
  /** The ids of people who work on it beside the one who adds it. */
  readonly people: readonly string[]
}

/** Another name for visitors to find a site under. */
export interface SiteHostRequest {
  readonly host: string
}

export interface SignInRequest {
  readonly login: string
  readonly password: string
}

/** The body of a request that changes the password of the person signed in. The server then ends all their other sessions. */
export interface PasswordRequest {
  readonly present: string
  readonly password: string
}

/** A browser in which somebody is signed in. */
export interface OpenSession {
  readonly id: string
  /** What the browser says it is, such as "Firefox on Linux". */
  readonly device: string
  /** ISO 8601, UTC. */
  readonly startedAt: string
  readonly usedAt: string
  /** True for the browser that asks. */
  readonly isThis: boolean
}

/** Whether visitors see a page, and whether they see its newest version. */
export type PageState = 'live' | 'changed' | 'never-published'

export interface PageSummary {
  readonly id: string
  readonly parentId: string | null
  /** Order among its siblings, from 0. */
  readonly position: number
  readonly title: string
  /** Its own part of the address; empty for the home page. */
  readonly slug: string
  /** The whole address, starting and ending with a slash. */
  readonly path: string
  readonly description: string
  readonly inNavigation: boolean
  readonly more: PageMore
  readonly state: PageState
  /** Number of its newest version. */
  readonly version: number
  /** ISO 8601, UTC. */
  readonly savedAt: string
  readonly savedBy: string
  readonly liveSince: string | null
}

export interface SiteInfo {
  readonly id: string
  readonly name: string
  readonly language: string
  readonly look: Look
  /** The order of the navigation, and its lines that are no pages; see `navigationOf`. */
  readonly navigation: readonly NavigationItem[]
  readonly homePageId: string
  /** The page that visitors get where there is none. */
  readonly notFoundPageId: string | null
  readonly icon: string | null
  readonly sharePicture: string | null
  readonly navigationLimit: number
  readonly header: Page
  readonly footer: Page
  /** What is known of the header and the footer as documents; `header` and `footer` are their newest versions. */
  readonly shared: Readonly<Record<FrameName, SharedSection>>
  /** The name that visitors find it under; null for the site of the installation's own address. */
  readonly host: string | null
  /** Where visitors see the site, without a slash at the end. */
  readonly liveOrigin: string
}

/** The library of a site, by ids. */
export interface Library {
  readonly pictures: Readonly<Record<string, Picture>>
  readonly files: Readonly<Record<string, SiteFile>>
}

/** Some of the pages of a site: how its list of pages is sent. */
export interface PageListPart {
  readonly pages: readonly PageSummary[]
  /** The ids of pages that do not stand in the tree any more. */
  readonly gone: readonly string[]
  /** How many pages the site has. */
  readonly total: number
  /** Names the last change that this knows of: what changed later is asked for with it. */
  readonly mark: string
  /** The id that the part after this one begins after; null where there is none. */
  readonly next: string | null
  /** True if the server does not know the mark that it was given: the receiver then forgets its list and begins with this part. */
  readonly isAnew?: boolean
}

/** What of the site is needed to show a page. */
export interface PageAround extends Library {
  /** The parts that the page, its header and its footer show, at whatever depth, by their ids. */
  readonly parts: Readonly<Record<string, LinkedPart>>
  readonly pages: readonly PageSummary[]
}

/** The header or the footer as a document: saved and published with any page. */
export interface SharedSection extends PartVersions {
  readonly id: string
}

export interface VersionInfo {
  readonly number: number
  readonly savedAt: string
  readonly savedBy: string
  /** What the save called itself, where it did; see `SaveRequest`. */
  readonly saveId?: string
  /** What changed since the version before, in sentences; told by lists of versions. */
  readonly changes?: readonly string[]
}

export interface PageDocument {
  readonly summary: PageSummary
  readonly document: Page
}

/** A page that is opened. */
export interface OpenedPage extends PageDocument {
  readonly around: PageAround
}

/** A page as visitors see it, with what stands on it and the parts that these show. */
export interface PageAsLive extends SessionParts {
  readonly version: number
}

export interface SaveRequest {
  /** Number of the version that was opened. */
  readonly base: number
  /** Absent where only shared sections changed. */
  readonly document?: Page
  /** Shared sections that were changed on the page: all that a save holds is saved, or nothing. */
  readonly shared?: readonly SharedSave[]
  /** Drawn once for each save: sent again after an answer that was lost, it is known to be the same. */
  readonly saveId?: string
  /** What the journal of this tab may forget, since this document holds it; null when nothing was kept there. */
  readonly journal: { readonly tab: string; readonly until: number } | null
}

/** Numbers of versions of what is shared with other pages, by name. */
export type SharedVersions = Readonly<Record<SharedName, number>>

export interface SharedSave {
  readonly id: string
  /** Number of the version that was opened. */
  readonly base: number
  readonly document: Page
}

export interface SaveResult extends PageSummary {
  /** The newest versions of the shared sections that the save held, by their ids. */
  readonly shared: Readonly<Record<string, number>>
}

export interface PublishRequest {
  /** The version that was looked at and checked: it goes live, and no other. */
  readonly version: number
  /** Versions of shared sections that go live with it, by their ids. */
  readonly shared?: Readonly<Record<string, number>>
}

export interface PublishResult {
  readonly summary: PageSummary
  /** The address visitors use. */
  readonly url: string
}

export interface NewPageRequest {
  readonly title: string
  readonly parentId: string | null
  /** The id of a template; a blank page where it is left out. */
  readonly template?: string
}

/** Where a page is to stand: the last one under its parent where no position is given. */
export interface PlacePageRequest {
  readonly parentId: string | null
  /** Its number among its siblings once it stands there, from 0. */
  readonly position: number
}

export interface CopyPageRequest {
  readonly withSubPages: boolean
}

/** A page in the bin, with how many pages went there with it. */
export interface BinnedPage {
  readonly id: string
  readonly title: string
  /** Its address as it was. */
  readonly path: string
  readonly subPages: number
  /** ISO 8601, UTC. */
  readonly binnedAt: string
}

/** What the library says of a picture. What is absent stays as it is. */
export interface MediaRequest {
  readonly name?: string
  readonly alt?: string
  readonly isDecoration?: boolean
  /** Values as the sender saw them: where one is another by now, nothing is changed. */
  readonly was?: Omit<MediaRequest, 'was'>
}

/** A page that shows a picture or links to a file, and how often. */
export interface PageUse {
  readonly pageId: string
  readonly title: string
  readonly path: string
  readonly count: number
}

/** Where something of the library is used: on a page, or in what stands on every page. */
export type MediaUse =
  | PageUse
  | { readonly onEveryPage: FrameName; readonly count: number }
  /** A pattern or a shared section that shows it, by its name. */
  | { readonly part: string; readonly type: PartType; readonly count: number }

export interface NavigationRequest {
  readonly items: readonly NavigationItem[]
  /** The lines as the sender saw them: what others changed since is merged, line by line. */
  readonly was?: readonly NavigationItem[]
}

/** A change of a page's settings, as its next version. What is absent stays as it is. */
export interface PageSettingsRequest {
  readonly title?: string
  readonly description?: string
  readonly inNavigation?: boolean
  /** Its own part of the address. */
  readonly slug?: string
  readonly more?: Partial<PageMore>
  /** Values as the sender saw them: where one is another by now, nothing is changed. */
  readonly was?: Partial<PageSettings>
}

/** What the site's administrator sets for all pages. */
export interface SiteSettings {
  readonly name: string
  /** A language tag (RFC 5646), such as "en-GB". */
  readonly language: string
  /** The id of the picture that icons are made of; null for one made of the name. */
  readonly icon: string | null
  /** The id of the picture shown where a page without one of its own is shared, or null. */
  readonly sharePicture: string | null
  /** Whether pages may have sizes and colours that the look does not have. */
  readonly ownValues: boolean
  /** So many pages at the top stand in the navigation by themselves; pages that are added beyond it do not. */
  readonly navigationLimit: number
  /** What the names on its pages stand for. */
  readonly look: Look
}

/** A change of the site's settings. What is absent stays as it is. */
export interface SiteSettingsRequest extends Partial<SiteSettings> {
  /** Values as the sender saw them: where one is another by now, nothing is changed. */
  readonly was?: Partial<SiteSettings>
}

/** A page whose text has what was searched for. */
export interface TextHit {
  readonly pageId: string
  readonly title: string
  readonly path: string
  /** The text before what was found, what was found, and the text after it. */
  readonly before: string
  readonly match: string
  readonly after: string
}

/** A line of an answer that tells how far a long act is: how much is done, or what it gave, or why it was refused. */
export type ProgressLine<T> =
  | { readonly done: number; readonly total: number }
  | { readonly result: T }
  | { readonly error: ErrorBody }

/** A release on the disk: what each address of the site shows. Visitors are answered from it, and exports are made of it. */
export interface Manifest {
  /** The name in the content store of the file at each address that is no page's, such as `/robots.txt`. */
  readonly addresses: Readonly<Record<string, string>>
  /** Where addresses lead that pages had before. */
  readonly redirects: Readonly<Record<string, string>>
  /** The names in the content store of its pages, in parts: each a `ReleasedPages` as JSON. */
  readonly records: readonly string[]
}

/** Pages of a release by their ids, with the name in the content store of the file at each address that they need. */
export type ReleasedPages = Readonly<Record<string, { readonly files: Readonly<Record<string, string>> }>>
