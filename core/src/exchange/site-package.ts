/**
 * A site package: parts, pages or a whole site with everything that they show, as one JSON object beside the files of
 * pictures and documents. Documented for other people's programs in docs/packages.md.
 */
import type { Problem, Registry } from '../blocks/registry.ts'
import { validatePage } from '../blocks/validate-page.ts'
import type { Look } from '../look/look.ts'
import type { Json, JsonObject } from '../page/json.ts'
import { migrateLook } from '../look/migrate-look.ts'
import { migratePage } from '../page/migrate.ts'
import type { Page } from '../page/page.ts'
import type { PartFacts, PartType } from '../reuse/part-facts.ts'
import { findRing, partsShownBy } from '../reuse/shown-parts.ts'
import { PART_ROOTS } from '../reuse/shared-parts.ts'
import type { NavigationItem } from '../site/navigation.ts'
import { referencesOf, type ReferredThing } from './references.ts'

export const SITE_PACKAGE_FORMAT = 'gullyline-site-package/1'

/** Where the JSON of a package is in its zip file. */
export const PACKAGE_JSON = 'package.json'

export interface CarriedPart extends PartFacts {
  readonly type: PartType
  readonly document: Page
}

export interface CarriedPage {
  readonly id: string
  /** A page of the package that comes before it; null at the top. */
  readonly parentId: string | null
  /** Its part of the address; empty for a home page. */
  readonly slug: string
  /** The page with its settings. */
  readonly document: Page
}

interface CarriedMedium {
  readonly name: string
  /** The SHA-256 of the file, in hex. */
  readonly digest: string
  readonly bytes: number
}

export interface CarriedPicture extends CarriedMedium {
  readonly alt: string
  readonly isDecoration: boolean
}

export type CarriedFile = CarriedMedium

/** What belongs to a whole site, and to none of its pages. */
export interface CarriedSite {
  readonly name: string
  readonly language: string
  readonly homePageId: string
  readonly notFoundPageId: string | null
  readonly icon: string | null
  readonly sharePicture: string | null
  readonly navigationLimit: number
  readonly navigation: readonly NavigationItem[]
  readonly header: { readonly id: string; readonly document: Page }
  readonly footer: { readonly id: string; readonly document: Page }
}

export interface SitePackage {
  readonly format: typeof SITE_PACKAGE_FORMAT
  /** The look that all of it was made in: what its names of colours and steps stood for. */
  readonly look: Look
  /** Only where a whole site is carried. */
  readonly site?: CarriedSite
  readonly parts: Readonly<Record<string, CarriedPart>>
  /** In the order of the tree: a page comes after its parent. */
  readonly pages: readonly CarriedPage[]
  readonly pictures: Readonly<Record<string, CarriedPicture>>
  readonly files: Readonly<Record<string, CarriedFile>>
}

/** Where the file of a picture, or a document to link to, is in the zip file. */
export function mediumPath(thing: 'picture' | 'file', id: string): string {
  return `${thing}s/${id}`
}

/** A package as text: the same package always gives the same text, whatever the order of its keys. */
export function packageText(given: SitePackage): string {
  return `${JSON.stringify(sorted(given as unknown as Json), undefined, 1)}\n`
}

/** The same value with the keys of every object in order. */
function sorted(value: Json): Json {
  if (typeof value !== 'object' || value === null) return value
  if (Array.isArray(value)) return value.map((one: Json) => sorted(one))
  const entries = Object.entries(value as JsonObject).sort(([a], [b]) => (a < b ? -1 : 1))
  return Object.fromEntries(entries.map(([key, one]) => [key, sorted(one)]))
}

/** A package that an older version wrote, with its documents and its look as ones of today's format; never throws. */
export function migrateSitePackage(value: unknown): unknown {
  if (!isObject(value)) return value
  const withDocument = (one: unknown): unknown =>
    isObject(one) && 'document' in one ? { ...one, document: migratePage(one.document) } : one
  const { parts, pages, site } = value
  return {
    ...value,
    ...('look' in value ? { look: migrateLook(value.look) } : {}),
    ...(isObject(parts)
      ? { parts: Object.fromEntries(Object.entries(parts).map(([id, one]) => [id, withDocument(one)])) }
      : {}),
    ...(Array.isArray(pages) ? { pages: pages.map(withDocument) } : {}),
    ...(isObject(site)
      ? { site: { ...site, header: withDocument(site.header), footer: withDocument(site.footer) } }
      : {}),
  }
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** Checks the shape of all but the documents; generated from the schema. */
type ShapeCheck = (value: unknown) => readonly Problem[]

/** So many problems are enough to refuse a package. */
const MOST_PROBLEMS = 100

/**
 * Problems of a package, each with its JSON pointer; empty where it can be imported. Takes anything, never throws. Beside
 * the shape it judges the tree of its pages, every document, rings of parts, and whether what is shown comes along.
 */
export function sitePackageProblems(value: unknown, registry: Registry, checkShape: ShapeCheck): Problem[] {
  const steps = sitePackageChecks(value, registry, checkShape)
  for (;;) {
    const step = steps.next()
    if (step.done === true) return step.value
  }
}

/** The same in steps, one for each document: a large package must not keep others waiting. */
export function* sitePackageChecks(
  value: unknown,
  registry: Registry,
  checkShape: ShapeCheck,
): Generator<void, Problem[]> {
  const shape = checkShape(value)
  if (shape.length > 0) return shape.slice(0, MOST_PROBLEMS)
  const given = value as SitePackage
  const documents = yield* documentProblems(given, registry)
  if (documents.length > 0) return documents
  return [
    ...treeProblems(given.pages),
    ...siteProblems(given),
    ...missingProblems(given, registry),
    ...ringProblems(given, registry),
  ].slice(0, MOST_PROBLEMS)
}

/** A document of a package. */
export interface PackagedDocument {
  readonly pointer: string
  readonly id: string
  readonly document: Page
  /** The kinds that its root may be of. */
  readonly roots: readonly string[]
}

/** All documents of a package. */
export function packagedDocuments({ parts, pages, site }: SitePackage): readonly PackagedDocument[] {
  const carried = Object.entries(parts).map(([id, { type, document }]) => ({
    pointer: `/parts/${id}/document`,
    id,
    document,
    roots: PART_ROOTS[type],
  }))
  const standing = pages.map(({ id, document }, i) => ({
    pointer: `/pages/${i}/document`,
    id,
    document,
    roots: ['page'],
  }))
  const around = site
    ? (['header', 'footer'] as const).map((name) => ({
        pointer: `/site/${name}/document`,
        id: site[name].id,
        document: site[name].document,
        roots: [`site-${name}`],
      }))
    : []
  return [...carried, ...standing, ...around]
}

function* documentProblems(given: SitePackage, registry: Registry): Generator<void, Problem[]> {
  const problems: Problem[] = []
  for (const { pointer, document, roots } of packagedDocuments(given)) {
    const tried = roots.map((root) => validatePage(document, registry, root))
    const best = tried.find((one) => one.length === 0) ?? tried[0]!
    problems.push(...best.map((one) => ({ ...one, pointer: pointer + one.pointer })))
    // What comes after is not looked at: a hostile package must not cost more than it takes to refuse it.
    if (problems.length >= MOST_PROBLEMS) return problems.slice(0, MOST_PROBLEMS)
    yield
  }
  for (const [id, { type, document }] of Object.entries(given.parts))
    if (type === 'shared' && document.root !== id)
      problems.push({
        pointer: `/parts/${id}/document/root`,
        message: 'must be the id of the shared section',
      })
  return problems
}

function treeProblems(pages: readonly CarriedPage[]): Problem[] {
  const problems: Problem[] = []
  const seen = new Set<string>()
  for (const [i, { id, parentId }] of pages.entries()) {
    if (seen.has(id)) problems.push({ pointer: `/pages/${i}/id`, message: 'is the id of another page' })
    if (parentId !== null && !seen.has(parentId))
      problems.push({
        pointer: `/pages/${i}/parentId`,
        message: 'must be the id of a page that comes before',
      })
    seen.add(id)
  }
  return problems
}

function siteProblems({ site, pages }: SitePackage): Problem[] {
  if (!site) return []
  const isThere = (wanted: string | null): boolean =>
    wanted === null || pages.some(({ id, parentId }) => id === wanted && parentId === null)
  return (['homePageId', 'notFoundPageId'] as const).flatMap((key) =>
    isThere(site[key]) ? [] : [{ pointer: `/site/${key}`, message: 'must be the id of a page at the top' }],
  )
}

/** What a package shows must come with it. Pages that are linked to need not: links say so themselves where they lead nowhere. */
function missingProblems(given: SitePackage, registry: Registry): Problem[] {
  const there: Readonly<Partial<Record<ReferredThing, object>>> = {
    part: given.parts,
    picture: given.pictures,
    file: given.files,
  }
  const problems = packagedDocuments(given).flatMap(({ pointer, document }) => {
    const referred = referencesOf(document, registry)
    return (['part', 'picture', 'file'] as const).flatMap((thing) =>
      [...referred[thing]].flatMap((id) =>
        Object.hasOwn(there[thing]!, id) || isNothing(thing, id)
          ? []
          : [{ pointer, message: `shows the ${thing} "${id}", which is not in the package` }],
      ),
    )
  })
  const shown = given.site ? [given.site.icon, given.site.sharePicture] : []
  for (const id of shown)
    if (id !== null && !Object.hasOwn(given.pictures, id))
      problems.push({ pointer: '/site', message: `shows the picture "${id}", which is not in the package` })
  return problems
}

/** An instance of nothing: what its kind begins with. */
function isNothing(thing: ReferredThing, id: string): boolean {
  return thing === 'part' && id === 'none'
}

function ringProblems({ parts }: SitePackage, registry: Registry): Problem[] {
  const ring = findRing(Object.keys(parts), (id) => {
    const document = parts[id]?.document
    return document ? partsShownBy(document, Object.keys(document.nodes), registry) : []
  })
  if (!ring) return []
  const names = ring.map((id) => `“${parts[id]!.name}”`).join(' in ')
  return [{ pointer: `/parts/${ring[0]}`, message: `stands in itself: ${names}` }]
}
