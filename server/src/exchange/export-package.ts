/** Writes packages: what was asked for, and everything that it shows. */
import { once } from 'node:events'
import type { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import {
  defaultRegistry,
  mediumPath,
  PACKAGE_JSON,
  packageText,
  referencesOf,
  SITE_PACKAGE_FORMAT,
  withRenamed,
  withRootId,
  type CarriedFile,
  type CarriedPart,
  type CarriedPicture,
  type ExportFacts,
  type NavigationItem,
  type Page,
  type SitePackage,
} from '@gullyline/core'
import type { SiteData, SiteScope } from '../db/site-scope.ts'
import { Refused } from '../http/errors.ts'
import type { Services } from '../services.ts'
import { originsOf } from './origins.ts'
import {
  digestOfFile,
  fileSource,
  newestDocuments,
  pictureSource,
  readSite,
  type ReadPage,
  type ReadSite,
} from './read-site.ts'

/** What is to be in a package. */
export type Wanted =
  | { readonly all: true }
  | {
      readonly parts: readonly string[]
      readonly pages: readonly string[]
      /** Whether the pages under those come as well. */
      readonly withSubPages: boolean
    }

/** What goes into the zip file: the package, and where the files of its media are. */
interface Packed {
  readonly package: SitePackage
  /** By their paths in the zip file. */
  readonly sources: ReadonlyMap<string, string>
}

/**
 * Writes a package as a zip file (APPNOTE.TXT 6.3, PKWARE). The same content always gives the same bytes: entries are in
 * the order of their names, with one date. Media are read one after another, and never all at once.
 */
export async function exportPackage(
  { dataDir }: Pick<Services, 'dataDir'>,
  site: SiteScope,
  wanted: Wanted,
): Promise<Readable> {
  const packed = await pack(dataDir, site, wanted)
  const zip = new ZipFile()
  zip.addBuffer(Buffer.from(packageText(packed.package)), PACKAGE_JSON, ENTRY)
  // Pictures and most documents are compressed already.
  for (const [path, source] of packed.sources) zip.addFile(source, path, { ...ENTRY, compress: false })
  zip.end()
  return zip.outputStream as unknown as Readable
}

/** Returns what a package would hold; refuses what could not be exported. */
export async function checkExport(
  { dataDir }: Pick<Services, 'dataDir'>,
  site: SiteScope,
  wanted: Wanted,
): Promise<ExportFacts> {
  const { parts, pages, pictures, files } = (await pack(dataDir, site, wanted)).package
  const media = [...Object.values(pictures), ...Object.values(files)]
  return {
    parts: Object.keys(parts).length,
    pages: pages.length,
    media: media.length,
    bytes: media.reduce((sum, { bytes }) => sum + bytes, 0),
  }
}

/** Nothing of when and where it was made: the first date that a zip file can have, in any time zone. */
const ENTRY = { mtime: new Date(1980, 0, 1), mode: 0o100644, forceDosTimestamp: true }

/** Writes a package into memory: for tests and small ones. */
export async function packageBytes(out: Readable): Promise<Buffer> {
  const chunks: Buffer[] = []
  out.on('data', (chunk: Buffer) => chunks.push(chunk))
  await once(out, 'end')
  return Buffer.concat(chunks)
}

async function pack(dataDir: string, scope: SiteScope, wanted: Wanted): Promise<Packed> {
  const { site, documents, origins } = await scope.read(async (at) => ({
    ...(await collect(at, wanted)),
    origins: await originsOf(at),
  }))
  const known = (id: string): string => origins.get(id) ?? id
  const carried = (document: Page): Page => withRenamed(document, defaultRegistry, (_thing, id) => known(id))
  const shown = 'all' in wanted ? allMedia(site) : shownMedia(documents.values())
  const sources = new Map<string, string>()
  const pictures: Record<string, CarriedPicture> = {}
  for (const row of site.pictures) {
    if (!shown.picture.has(row.id)) continue
    const source = await pictureSource(dataDir, row)
    const facts = await digestOfFile(source).catch(() => lost(row.name))
    pictures[known(row.id)] = {
      name: row.name,
      alt: row.alt,
      isDecoration: Boolean(row.isDecoration),
      ...facts,
    }
    sources.set(mediumPath('picture', known(row.id)), source)
  }
  const files: Record<string, CarriedFile> = {}
  for (const row of site.files) {
    if (!shown.file.has(row.id)) continue
    const source = fileSource(dataDir, row)
    const facts = await digestOfFile(source).catch(() => lost(row.name))
    files[known(row.id)] = { name: row.name, ...facts }
    sources.set(mediumPath('file', known(row.id)), source)
  }
  const parts: Record<string, CarriedPart> = {}
  for (const { id, type, name, purpose, about } of site.parts) {
    const document = documents.get(id)
    if (!document) continue
    const named = type === 'shared' ? withRootId(carried(document), known(id)) : carried(document)
    parts[known(id)] = { type, name, purpose, about, document: named }
  }
  const standing = new Set(site.pages.filter(({ id }) => documents.has(id)).map(({ id }) => id))
  const pages = site.pages
    .filter(({ id }) => standing.has(id))
    .map(({ id, parentId, slug }) => ({
      id: known(id),
      parentId: parentId !== null && standing.has(parentId) ? known(parentId) : null,
      slug,
      document: carried(documents.get(id)!),
    }))
  const { row } = site
  const around = (id: string) => ({ id: known(id), document: carried(documents.get(id)!) })
  const whole =
    'all' in wanted
      ? {
          site: {
            name: row.name,
            language: row.language,
            homePageId: known(row.homePageId),
            notFoundPageId: row.notFoundPageId === null ? null : known(row.notFoundPageId),
            icon: row.icon === null ? null : known(row.icon),
            sharePicture: row.sharePicture === null ? null : known(row.sharePicture),
            navigationLimit: row.navigationLimit,
            navigation: row.navigation.map((line): NavigationItem =>
              'page' in line ? { ...line, page: known(line.page) } : line,
            ),
            header: around(row.headerId),
            footer: around(row.footerId),
          },
        }
      : {}
  const sorted = new Map([...sources].sort(([a], [b]) => (a < b ? -1 : 1)))
  return {
    package: { format: SITE_PACKAGE_FORMAT, look: row.look, ...whole, parts, pages, pictures, files },
    sources: sorted,
  }
}

function lost(name: string): never {
  throw new Refused(
    'storage',
    `The file of “${name}” is missing on the server. Nothing was exported; replace the file under Media first.`,
  )
}

/** The documents that are wanted, with the parts that they show, at whatever depth. */
async function collect(
  at: SiteData,
  wanted: Wanted,
): Promise<{ readonly site: ReadSite; readonly documents: ReadonlyMap<string, Page> }> {
  const site = await readSite(at)
  const documents = new Map<string, Page>()
  let pending = 'all' in wanted ? allOf(site) : namedOf(site, wanted)
  while (pending.length > 0) {
    for (const [id, document] of await newestDocuments(at, pending)) documents.set(id, document)
    const shown = new Set<string>()
    for (const id of pending)
      for (const part of referencesOf(documents.get(id)!, defaultRegistry).part) shown.add(part)
    pending = [...shown].filter((id) => !documents.has(id) && site.parts.some((part) => part.id === id))
  }
  return { site, documents }
}

function allOf({ parts, pages, row }: ReadSite): string[] {
  return [...parts, ...pages].map(({ id }) => id).concat(row.headerId, row.footerId)
}

function namedOf(
  site: ReadSite,
  { parts, pages, withSubPages }: Exclude<Wanted, { readonly all: true }>,
): string[] {
  for (const id of parts)
    if (!site.parts.some((part) => part.id === id))
      throw new Refused('not-found', 'The site has no such pattern or shared section. Nothing was exported.')
  const named = pages.map((id): ReadPage => {
    const page = site.pages.find((one) => one.id === id)
    if (!page) throw new Refused('not-found', 'The site has no such page. Nothing was exported.')
    return page
  })
  const under = withSubPages
    ? site.pages.filter(({ path }) => named.some((page) => path.startsWith(page.path)))
    : named
  return [...new Set([...parts, ...under.map(({ id }) => id)])]
}

interface Media {
  readonly picture: ReadonlySet<string>
  readonly file: ReadonlySet<string>
}

function allMedia({ pictures, files }: ReadSite): Media {
  return { picture: new Set(pictures.map(({ id }) => id)), file: new Set(files.map(({ id }) => id)) }
}

function shownMedia(documents: Iterable<Page>): Media {
  const shown = { picture: new Set<string>(), file: new Set<string>() }
  for (const document of documents) {
    const { picture, file } = referencesOf(document, defaultRegistry)
    for (const id of picture) shown.picture.add(id)
    for (const id of file) shown.file.add(id)
  }
  return shown
}
