/** What an import would do: what comes, what of it is there already, and what is to be done with each. */
import type { Registry } from '../blocks/registry.ts'
import type { Look } from '../look/look.ts'
import { sameJson, type Json } from '../page/json.ts'
import type { Page } from '../page/page.ts'
import { withRootId } from '../reuse/shared-parts.ts'
import { settingsOf } from '../site/page-settings.ts'
import { carriedSurfaces, type CarriedSurface, type PartOf } from './carry-look.ts'
import { referencesOf, withRenamed, type Renamed } from './references.ts'
import { packagedDocuments, type SitePackage } from './site-package.ts'

export type CarriedThing = 'settings' | 'header' | 'footer' | 'part' | 'page' | 'picture' | 'file'

/** `add` where there is nothing like it; else what is here stays, is replaced, or gets the other beside it. */
export type ImportChoice = 'add' | 'mine' | 'theirs' | 'both'

/** Something that a package brings. */
export interface ImportItem {
  /** Names it in choices. */
  readonly key: string
  readonly thing: CarriedThing
  /** Its id in the package. */
  readonly id: string
  readonly name: string
  /** What is here already. */
  readonly match?: {
    readonly id: string
    readonly name: string
    /** By what it is taken for the same. */
    readonly by: 'id' | 'name' | 'address' | 'content' | 'place'
    /** Whether it is the same in all that is carried. */
    readonly isSame: boolean
  }
  readonly choices: readonly ImportChoice[]
  /** What is done where nothing else is chosen: it changes nothing that is here. */
  readonly suggested: ImportChoice
}

export interface ImportPlan {
  readonly items: readonly ImportItem[]
  /** Colours that are not the same here. */
  readonly surfaces: readonly CarriedSurface[]
  /** How many pages are linked to that neither come along nor are here: those links will lead nowhere. */
  readonly lostPages: number
}

/** Something of the site that a package may bring as well. `origin` is the id that it came with, where it was imported. */
interface Here {
  readonly id: string
  readonly origin?: string | undefined
  readonly name: string
}
export interface HerePart extends Here {
  /** Undefined where it was not read, since nothing of the package can be it; see `matcherOf`. */
  readonly document: Page | undefined
}
export interface HerePage extends HerePart {
  readonly path: string
}
export interface HereMedium extends Here {
  /** Undefined where it was not looked at: then it is taken for another one. */
  readonly digest?: string | undefined
  readonly alt?: string
}

export interface HereSite {
  readonly look: Look
  readonly parts: readonly HerePart[]
  readonly pages: readonly HerePage[]
  readonly pictures: readonly HereMedium[]
  readonly files: readonly HereMedium[]
  readonly header: HerePart
  readonly footer: HerePart
}

const CHOICES = ['mine', 'theirs', 'both'] as const
/** What a site has one of. */
const ONE_CHOICES = ['mine', 'theirs'] as const

export function importKey(thing: CarriedThing, id: string): string {
  return `${thing} ${id}`
}

/** The addresses of the pages of a package, from its own top. */
export function carriedPaths({ pages }: Pick<SitePackage, 'pages'>): ReadonlyMap<string, string> {
  const paths = new Map<string, string>()
  for (const { id, parentId, slug } of pages) {
    const under = parentId === null ? '/' : paths.get(parentId)!
    paths.set(id, slug === '' ? under : `${under}${slug}/`)
  }
  return paths
}

/** Compares a package, which must be valid, with a site. */
export function planImport(given: SitePackage, here: HereSite, registry: Registry): ImportPlan {
  const origins = new Map<string, string>()
  const all = [...here.parts, ...here.pages, ...here.pictures, ...here.files, here.header, here.footer]
  for (const { id, origin } of all) if (origin !== undefined) origins.set(id, origin)
  const asOrigin: Renamed = (_thing, id) => origins.get(id) ?? id
  const isSameDocument = (own: Page | undefined, theirs: Page): boolean => {
    if (!own) return false
    const renamed = withRenamed(own, registry, asOrigin)
    const rooted = Object.hasOwn(theirs.nodes, theirs.root) ? withRootId(renamed, theirs.root) : renamed
    const carried = withRenamed(theirs, registry, (_thing, id) => id)
    return sameJson(rooted as unknown as Json, carried as unknown as Json)
  }
  const paths = carriedPaths(given)
  const named = new Map(here.parts.map((one) => [nameKey(one.name), one]))
  const { site } = given
  const items: ImportItem[] = []
  if (site) {
    items.push({
      key: importKey('settings', 'site'),
      thing: 'settings',
      id: 'site',
      name: 'Site name, language, look, icon and navigation',
      match: { id: 'site', name: 'Settings', by: 'place', isSame: false },
      choices: ONE_CHOICES,
      suggested: 'mine',
    })
    for (const thing of ['header', 'footer'] as const) {
      const own = here[thing]
      const isSame = isSameDocument(own.document, site[thing].document)
      items.push({
        key: importKey(thing, site[thing].id),
        thing,
        id: site[thing].id,
        name: thing === 'header' ? 'Header' : 'Footer',
        match: { id: own.id, name: own.name, by: 'place', isSame },
        choices: ONE_CHOICES,
        suggested: 'mine',
      })
    }
  }
  for (const [id, { name, document }] of Object.entries(given.parts)) {
    const byId = findById(here.parts, id)
    const own = byId ?? named.get(nameKey(name))
    const isSame = own && isSameDocument(own.document, document)
    const item = itemOf('part', { id, name }, own, byId ? 'id' : 'name', isSame)
    // A pattern can't stand for a shared section, nor one of blocks for one of whole sections.
    const isOtherSort = own?.document && rootKind(own.document) !== rootKind(document)
    items.push(isOtherSort ? { ...item, choices: ['both'], suggested: 'both' } : item)
  }
  for (const { id, document } of given.pages) {
    const byId = findById(here.pages, id)
    const isHome = site?.homePageId === id
    const own = byId ?? here.pages.find(({ path }) => path === (isHome ? '/' : paths.get(id)))
    const { title } = settingsOf(document)
    const item = itemOf(
      'page',
      { id, name: title },
      own,
      byId ? 'id' : 'address',
      own && isSameDocument(own.document, document),
    )
    items.push(own?.path === '/' ? { ...item, choices: ONE_CHOICES } : item)
  }
  for (const [thing, theirs, ours] of [
    ['picture', given.pictures, here.pictures],
    ['file', given.files, here.files],
  ] as const)
    for (const [id, { name, digest }] of Object.entries(theirs)) {
      const byId = findById(ours, id)
      const byContent = ours.find((one) => one.digest === digest)
      const own = byId ?? byContent ?? ours.find((one) => one.name === name)
      const by = byId ? 'id' : byContent ? 'content' : 'name'
      items.push(itemOf(thing, { id, name }, own, by, own?.digest === digest))
    }
  const documents = packagedDocuments(given).map(({ document }) => document)
  const linked = new Set(documents.flatMap((document) => [...referencesOf(document, registry).page]))
  const lost = [...linked].filter((id) => !paths.has(id) && !findById(here.pages, id))
  const partOf: PartOf = (id) => given.parts[id]?.document
  const surfaces = carriedSurfaces(documents, given.look, here.look, registry, partOf)
  return { items, surfaces, lostPages: lost.length }
}

function rootKind({ root, nodes }: Page): string | undefined {
  return nodes[root]?.kind
}

function findById<T extends Here>(all: readonly T[], id: string): T | undefined {
  return all.find((one) => one.origin === id) ?? all.find((one) => one.id === id && one.origin === undefined)
}

/** Alike for names that differ in the case of letters or in their marks alone, as the database compares names of parts. */
export function nameKey(name: string): string {
  return name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()
}

/** Tells whether something of a site may be what a package brings: only of that the documents need to be read. */
export function matcherOf(
  given: SitePackage,
): (one: {
  readonly id: string
  readonly origin?: string | undefined
  readonly name?: string
  readonly path?: string
}) => boolean {
  const paths = carriedPaths(given)
  const ids = new Set([...Object.keys(given.parts), ...paths.keys()])
  const names = new Set(Object.values(given.parts).map(({ name }) => nameKey(name)))
  const addresses = new Set([...paths.values(), ...(given.site ? ['/'] : [])])
  return ({ id, origin, name, path }) =>
    ids.has(origin ?? id) ||
    (name !== undefined && names.has(nameKey(name))) ||
    (path !== undefined && addresses.has(path))
}

function itemOf(
  thing: CarriedThing,
  { id, name }: { readonly id: string; readonly name: string },
  own: Here | undefined,
  by: NonNullable<ImportItem['match']>['by'],
  isSame = false,
): ImportItem {
  const item = { key: importKey(thing, id), thing, id, name }
  if (!own) return { ...item, choices: ['add'], suggested: 'add' }
  return {
    ...item,
    match: { id: own.id, name: own.name, by, isSame },
    choices: CHOICES,
    suggested: 'mine',
  }
}

/** The choices that were made, by the keys of items. An item without one is done as suggested. */
export type ImportChoices = Readonly<Record<string, ImportChoice>>

/** What is to be done with an item. Throws RangeError for a choice that it has not. */
export function chosen(item: ImportItem, choices: ImportChoices): ImportChoice {
  const choice = Object.hasOwn(choices, item.key) ? choices[item.key]! : item.suggested
  if (!item.choices.includes(choice)) throw new RangeError(`“${item.name}” can’t be imported as “${choice}”`)
  return choice
}
