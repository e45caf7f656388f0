/** Importing packages: what would come is looked at first, and then all of it is taken, or nothing. */
import { In } from 'typeorm'
import {
  chosen,
  cutShort,
  defaultRegistry,
  importKey,
  matcherOf,
  nameKey,
  inLook,
  LONGEST_PART_NAME,
  partsShownBy,
  settingsOf,
  planImport,
  withRenamed,
  withRootId,
  type HereSite,
  type ImportChoice,
  type ImportChoices,
  type ImportItem,
  type Imported,
  type ImportPlan,
  type ImportRequest,
  type Look,
  type Page,
  type SitePackage,
} from '@gullyline/core'
import { DocumentEntity, PartEntity } from '../db/document-rows.ts'
import { isDuplicate } from '../db/is-duplicate.ts'
import { FileEntity, MediaEntity, SiteEntity, type FileRow, type MediaRow } from '../db/rows.ts'
import type { SiteChange, SiteData, SiteScope } from '../db/site-scope.ts'
import { findSite, lockSite } from '../documents/site-row.ts'
import { addDocument, insertVersion, lockDocument, type Author } from '../documents/store.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import type { Watch } from '../http/progress.ts'
import { refuseRing } from '../pages/rings.ts'
import { forgetFile, keepFile } from '../media/files.ts'
import { newRevision } from '../media/folders.ts'
import { forgetPicture, makePicture } from '../media/library.ts'
import { freeSlugUnder } from '../pages/addresses.ts'
import { insertPageVersion } from '../pages/store.ts'
import { slugOf } from '../pages/tree.ts'
import { assertLines } from '../sites/store.ts'
import { addressUnder, insertPage, positionAtEnd, renumber, siblingsOf } from '../pages/tree-acts.ts'
import type { Services } from '../services.ts'
import { originsOf, rememberOrigins } from './origins.ts'
import { openPackage, type OpenPackage } from './open-package.ts'
import { comparedMedia, newestDocuments, readSite, type ReadSite } from './read-site.ts'

/** What a package would do to a site. */
export async function lookAtPackage(
  { dataDir }: Pick<Services, 'dataDir'>,
  scope: SiteScope,
  path: string,
): Promise<ImportPlan> {
  const opened = await openPackage(path)
  try {
    return (await planFor(dataDir, scope, opened.package)).plan
  } finally {
    opened.close()
  }
}

interface Planned {
  readonly site: ReadSite
  readonly plan: ImportPlan
}

async function planFor(dataDir: string, scope: SiteScope, given: SitePackage): Promise<Planned> {
  const near = await scope.read((at) => readNear(at, given))
  const ids = new Set([...Object.keys(given.pictures), ...Object.keys(given.files)])
  const names = new Set(
    [...Object.values(given.pictures), ...Object.values(given.files)].map(({ name }) => name),
  )
  const media = await comparedMedia(
    dataDir,
    near.site,
    near.origins,
    ({ id, origin, name }) => ids.has(origin ?? id) || names.has(name),
  )
  return { site: near.site, plan: planOf(given, near, media) }
}

/** What a site has that a package may bring as well. */
interface Near {
  readonly site: ReadSite
  readonly origins: ReadonlyMap<string, string>
  readonly documents: ReadonlyMap<string, Page>
}

async function readNear(at: SiteData, given: SitePackage): Promise<Near> {
  const site = await readSite(at)
  const origins = await originsOf(at)
  const mayMatch = matcherOf(given)
  const near = [...site.parts, ...site.pages].filter((one) =>
    mayMatch({ ...one, origin: origins.get(one.id) }),
  )
  const ids = [...near.map(({ id }) => id), site.row.headerId, site.row.footerId]
  return { site, origins, documents: await newestDocuments(at, ids) }
}

function planOf(
  given: SitePackage,
  { site, origins, documents }: Near,
  media: Pick<HereSite, 'pictures' | 'files'>,
): ImportPlan {
  const described = <T extends { readonly id: string }>(one: T, name: string) => ({
    ...one,
    name,
    origin: origins.get(one.id),
    document: documents.get(one.id),
  })
  const here: HereSite = {
    look: site.row.look,
    parts: site.parts.map((part) => described(part, part.name)),
    pages: site.pages.map((page) => described(page, page.path)),
    header: described({ id: site.row.headerId }, 'Header'),
    footer: described({ id: site.row.footerId }, 'Footer'),
    ...media,
  }
  return planImport(given, here, defaultRegistry)
}

interface ToImport extends ImportRequest {
  readonly by: Author
  readonly watch: Watch
}

/**
 * Imports the package in a file as it was chosen: all of it, or nothing. Pictures are made first, which takes most of the
 * time; everything else is one transaction.
 */
export async function importPackage(
  services: Services,
  scope: SiteScope,
  path: string,
  { choices, surfaces, by, watch }: ToImport,
): Promise<Imported> {
  const opened = await openPackage(path)
  const made: Made = { pictures: [], files: [] }
  try {
    const { plan, site } = await planFor(services.dataDir, scope, opened.package)
    const decided = decide(plan, choices)
    refuseSurfaces(surfaces, site)
    const ids = await scope.read((at) => newIds(at, decided))
    await makeMedia(services, opened, { decided, ids, made, watch })
    const old = await scope.change(['pages', 'parts', 'site'], (at) =>
      writeAll(at, { given: opened.package, decided, ids, made, surfaces, by }),
    )
    // What was done is done, also where this fails.
    await forget(services, old).catch(() => undefined)
    const count = (choice: ImportChoice): number => decided.filter((one) => one.choice === choice).length
    return { added: count('add') + count('both'), replaced: count('theirs'), kept: count('mine') }
  } catch (error) {
    await forget(services, made)
    // Somebody imported the same meanwhile, or gave something the same name.
    throw isDuplicate(error) ? changedMeanwhile('Part of this package') : error
  } finally {
    opened.close()
  }
}

interface Decided {
  readonly item: ImportItem
  readonly choice: ImportChoice
}

function decide(plan: ImportPlan, choices: ImportChoices): readonly Decided[] {
  const keys = new Set(plan.items.map(({ key }) => key))
  if (Object.keys(choices).some((key) => !keys.has(key)))
    throw new Refused(
      'not-valid',
      'The package has changed since it was looked at. Nothing was changed; choose it again.',
    )
  try {
    return plan.items.map((item) => ({ item, choice: chosen(item, choices) }))
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    throw changedMeanwhile(error.message)
  }
}

/** What was decided goes by the parts and pages that were there: others that came or went meanwhile would be decided on unseen. */
function refuseOtherMatches({ items }: ImportPlan, decided: readonly Decided[]): void {
  const matches = new Map(items.map(({ key, match }) => [key, match?.id]))
  const other = decided.find(
    ({ item: { thing, key, match } }) =>
      (thing === 'part' || thing === 'page') && matches.get(key) !== match?.id,
  )
  if (other) throw changedMeanwhile(`“${other.item.name}” is not as it was`)
}

function changedMeanwhile(what: string): Refused {
  return new Refused(
    'stale-save',
    `${what}: somebody changed the site meanwhile. Nothing was imported; look at what would come now, and import again.`,
  )
}

/** Removes files that nobody gets to see, or nobody any more. */
async function forget(services: Pick<Services, 'dataDir'>, { pictures, files }: Made | Old): Promise<void> {
  for (const { id, revision } of pictures) await forgetPicture(services, id, revision)
  for (const row of files) await forgetFile(services.dataDir, row)
}

/** A colour stands for one of the look here, and for nothing else. */
function refuseSurfaces(surfaces: Readonly<Record<string, string>>, { row }: ReadSite): void {
  for (const name of Object.values(surfaces))
    if (!Object.hasOwn(row.look.surfaces, name))
      throw new Refused('not-valid', 'The look of this site has no colour of that name. Nothing was changed.')
}

/** The id that each thing of the package has here. */
type Ids = ReadonlyMap<string, string>

async function newIds(at: SiteData, decided: readonly Decided[]): Promise<Ids> {
  const wanted = decided.map(({ item }) => item.id)
  const taken = new Set<string>()
  if (wanted.length > 0)
    for (const entity of [DocumentEntity, MediaEntity, FileEntity])
      // Ids are of the whole installation: another site may have them.
      for (const { id } of await at.manager.find(entity, { where: { id: In(wanted) }, select: { id: true } }))
        taken.add(id)
  return new Map(
    decided.map(({ item, choice }) => {
      if (choice === 'mine' || choice === 'theirs') return [item.key, item.match!.id]
      return [item.key, taken.has(item.id) || choice === 'both' ? newId() : item.id]
    }),
  )
}

/** What was made of the media of a package, and no row tells of yet. */
interface Made {
  readonly pictures: Omit<MediaRow, 'siteId'>[]
  readonly files: Omit<FileRow, 'siteId'>[]
}

interface Making {
  readonly decided: readonly Decided[]
  readonly ids: Ids
  readonly made: Made
  readonly watch: Watch
}

async function makeMedia(services: Services, opened: OpenPackage, making: Making): Promise<void> {
  const { decided, ids, made, watch } = making
  const wanted = decided.filter(
    ({ item, choice }) => (item.thing === 'picture' || item.thing === 'file') && choice !== 'mine',
  )
  for (const [done, { item, choice }] of wanted.entries()) {
    watch.onProgress(done, wanted.length)
    if (watch.signal.aborted) throw new Refused('not-valid', 'The import was cancelled. Nothing was changed.')
    const { id, thing } = item
    const bytes = await opened.readMedium(thing as 'picture' | 'file', id)
    const key = { id: ids.get(item.key)!, revision: choice === 'theirs' ? newRevision() : 1 }
    const upload = { name: item.name, bytes, signal: watch.signal }
    if (thing === 'picture') {
      const { alt, isDecoration } = opened.package.pictures[id]!
      const derived = await makePicture(services, key, upload, { isCleanAlready: true })
      made.pictures.push({ ...key, ...derived, name: item.name, alt, isDecoration, previous: null })
    } else made.files.push({ ...(await keepFile(services, key, upload)), previous: null })
  }
  watch.onProgress(wanted.length, wanted.length)
}

interface Writing {
  readonly given: SitePackage
  readonly decided: readonly Decided[]
  readonly ids: Ids
  readonly made: Making['made']
  readonly surfaces: Readonly<Record<string, string>>
  readonly by: Author
}

/** Writes everything. Returns the files that nobody is shown any more once that is done. */
async function writeAll(at: SiteChange, writing: Writing): Promise<Old> {
  await lockSite(at)
  const { given, decided, ids, by } = writing
  refuseOtherMatches(planOf(given, await readNear(at, given), { pictures: [], files: [] }), decided)
  const old = await writeMedia(at, writing)
  const site = decided.find(({ item }) => item.thing === 'settings')
  const look = site?.choice === 'theirs' ? given.look : ((await findSite(at)).look as Look)
  if (site?.choice === 'theirs') await writeSettings(at, writing)
  const surfaces = site?.choice === 'theirs' ? {} : writing.surfaces
  const partOf = (id: string): Page | undefined => given.parts[id]?.document
  // Its look first: instances name their parts by the ids of the package until then.
  const convert = (document: Page): Page =>
    withRenamed(
      inLook(document, look, surfaces, defaultRegistry, partOf),
      defaultRegistry,
      (thing, id) => ids.get(importKey(thing, id)) ?? id,
    )
  const parts = await writeParts(at, writing, convert)
  for (const name of ['header', 'footer'] as const) {
    const one = decided.find(({ item }) => item.thing === name)
    if (one?.choice !== 'theirs') continue
    const locked = await lockDocument(at, ids.get(one.item.key)!)
    await insertVersion(at, locked, { document: convert(given.site![name].document), by })
  }
  await writePages(at, writing, convert)
  // Also with what is here: the parts that come may show parts that stay.
  await refuseRing(at, parts)
  const came = decided.filter(({ item, choice }) => choice !== 'mine' && item.thing !== 'settings')
  await rememberOrigins(at, new Map(came.map(({ item }) => [ids.get(item.key)!, item.id])))
  return old
}

/** Replaced more than once: releases have their own copies, and no page that is open shows them any more. */
interface Old {
  readonly pictures: readonly Pick<MediaRow, 'id' | 'revision'>[]
  readonly files: readonly FileRow[]
}

async function writeMedia(at: SiteChange, { made }: Writing): Promise<Old> {
  const { siteId, manager } = at
  const old = { pictures: [] as Pick<MediaRow, 'id' | 'revision'>[], files: [] as FileRow[] }
  for (const row of made.pictures) {
    const before = await manager.findOneBy(MediaEntity, { id: row.id, siteId })
    if (before) {
      await manager.update(MediaEntity, { id: row.id, siteId }, { ...row, previous: before.revision })
      if (before.previous !== null) old.pictures.push({ id: row.id, revision: before.previous })
    } else await manager.insert(MediaEntity, { ...row, siteId })
  }
  for (const row of made.files) {
    const before = await manager.findOneBy(FileEntity, { id: row.id, siteId })
    if (before) {
      await manager.update(FileEntity, { id: row.id, siteId }, { ...row, previous: before.revision })
      if (before.previous !== null) old.files.push({ ...before, revision: before.previous })
    } else await manager.insert(FileEntity, { ...row, siteId })
  }
  return old
}

async function writeSettings(at: SiteChange, { given, ids }: Writing): Promise<void> {
  const { name, language, icon, sharePicture, navigation, navigationLimit } = given.site!
  const picture = (id: string | null): string | null =>
    id === null ? null : (ids.get(importKey('picture', id)) ?? null)
  const lines = navigation.map((line) =>
    'page' in line ? { ...line, page: ids.get(importKey('page', line.page)) ?? line.page } : line,
  )
  assertLines(lines)
  const set = { name, language, look: given.look, navigation: lines, navigationLimit }
  await at.manager.update(
    SiteEntity,
    { id: at.siteId },
    { ...set, icon: picture(icon), sharePicture: picture(sharePicture) },
  )
}

/** Writes the parts, those first that others show; returns their ids. */
async function writeParts(
  at: SiteChange,
  { given, decided, ids, by }: Writing,
  convert: (document: Page) => Page,
): Promise<string[]> {
  const chosenParts = new Map(
    decided.flatMap((one) => (one.item.thing === 'part' ? [[one.item.id, one] as const] : [])),
  )
  const names = new Set((await readSite(at)).parts.map(({ name }) => nameKey(name)))
  const written: string[] = []
  for (const id of innermostFirst(given)) {
    const { item, choice } = chosenParts.get(id)!
    if (choice === 'mine') continue
    const { type, document, name, purpose, about } = given.parts[id]!
    const own = ids.get(item.key)!
    const renamed = convert(document)
    const stored = type === 'shared' ? withRootId(renamed, own) : renamed
    if (choice === 'theirs') {
      await insertVersion(at, await lockDocument(at, own), { document: stored, by })
      await at.manager.update(PartEntity, { id: own, siteId: at.siteId }, { purpose, about })
    } else {
      await addDocument(at, { id: own, type, document: stored, by })
      const free = freeName(name, names)
      names.add(nameKey(free))
      const facts = { name: free, taken: free, purpose, about, binnedAt: null }
      await at.manager.insert(PartEntity, { id: own, siteId: at.siteId, ...facts })
    }
    written.push(own)
  }
  return written
}

function freeName(wanted: string, taken: ReadonlySet<string>): string {
  let name = wanted
  for (let n = 2; taken.has(nameKey(name)); n++)
    name = `${cutShort(wanted, LONGEST_PART_NAME - 4).trimEnd()} ${n}`
  return name
}

/** The ids of the parts of a package: what a part shows comes before it. */
function innermostFirst({ parts }: SitePackage): string[] {
  const order = new Set<string>()
  const add = (id: string): void => {
    const part = parts[id]
    if (!part || order.has(id)) return
    for (const one of partsShownBy(part.document, Object.keys(part.document.nodes), defaultRegistry)) add(one)
    order.add(id)
  }
  for (const id of Object.keys(parts)) add(id)
  return [...order]
}

async function writePages(
  at: SiteChange,
  { given, decided, ids, by }: Writing,
  convert: (document: Page) => Page,
): Promise<void> {
  const choices = new Map(decided.map(({ item, choice }) => [item.key, choice]))
  const parents = new Map<string | null, string[]>()
  for (const { id, parentId, slug, document } of given.pages) {
    const key = importKey('page', id)
    const own = ids.get(key)!
    const choice = choices.get(key)!
    const parent = parentId === null ? null : ids.get(importKey('page', parentId))!
    if (choice === 'mine') continue
    parents.set(parent, [...(parents.get(parent) ?? []), own])
    if (choice === 'theirs') {
      await insertPageVersion(at, await lockDocument(at, own), { document: convert(document), by })
      continue
    }
    const under = (await addressUnder(at, parent)) ?? '/'
    const wanted = slug === '' ? slugOf(settingsOf(document).title) : slug
    const free = await freeSlugUnder(at, under, wanted)
    const position = await positionAtEnd(at, parent)
    await insertPage(at, { id: own, parentId: parent, position, slug: free, under }, convert(document), by)
  }
  for (const [parent, came] of parents) {
    const siblings = await siblingsOf(at, parent)
    const others = siblings.filter((id) => !came.includes(id))
    // What was replaced may stand elsewhere in the tree; it stays there.
    await renumber(at, [...others, ...came.filter((id) => siblings.includes(id))])
  }
}
