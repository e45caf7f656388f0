/** What a site has that packages carry: as it was saved last. */
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { IsNull } from 'typeorm'
import type { HereMedium, Look, NavigationItem, Page, PartFacts, PartType } from '@gullyline/core'
import { DocumentEntity, PartEntity } from '../db/document-rows.ts'
import { FileEntity, MediaEntity, PageEntity, type FileRow, type MediaRow, type SiteRow } from '../db/rows.ts'
import type { SiteData } from '../db/site-scope.ts'
import { findSite } from '../documents/site-row.ts'
import { findVersions, readDocument } from '../documents/versions.ts'
import { filePath, originalFile, pictureFolder } from '../media/folders.ts'
import { asTree } from '../pages/tree.ts'

export interface ReadPart extends PartFacts {
  readonly id: string
  readonly type: PartType
}

export interface ReadPage {
  readonly id: string
  readonly parentId: string | null
  readonly slug: string
  readonly path: string
}

export interface ReadSite {
  readonly row: Omit<SiteRow, 'look' | 'navigation'> & {
    readonly look: Look
    readonly navigation: readonly NavigationItem[]
  }
  readonly parts: readonly ReadPart[]
  /** In the order of the tree: a page comes after its parent. */
  readonly pages: readonly ReadPage[]
  readonly pictures: readonly MediaRow[]
  readonly files: readonly FileRow[]
}

/** Reads all but the documents. */
export async function readSite(at: SiteData): Promise<ReadSite> {
  const { siteId } = at
  const row = await findSite(at)
  const parts = await at.manager.find(PartEntity, {
    where: { siteId, binnedAt: IsNull() },
    order: { name: 'ASC', id: 'ASC' },
  })
  const documents = await at.manager.findBy(DocumentEntity, { siteId })
  const typeOf = new Map(documents.map(({ id, type }) => [id, type]))
  const pages = asTree(
    await at.manager.find(PageEntity, {
      where: { siteId, binnedAt: IsNull() },
      order: { position: 'ASC', id: 'ASC' },
    }),
  )
  return {
    row: { ...row, look: row.look as Look, navigation: row.navigation as NavigationItem[] },
    parts: parts.map(({ id, name, purpose, about }) => ({
      id,
      name,
      purpose,
      about,
      type: typeOf.get(id) as PartType,
    })),
    pages: parentsFirst(pages).map(({ id, parentId, slug, address }) => ({
      id,
      parentId,
      slug,
      path: address ?? '/',
    })),
    pictures: await at.manager.find(MediaEntity, { where: { siteId }, order: { id: 'ASC' } }),
    files: await at.manager.find(FileEntity, { where: { siteId }, order: { id: 'ASC' } }),
  }
}

function parentsFirst<T extends { readonly id: string; readonly parentId: string | null }>(
  pages: readonly T[],
): T[] {
  const inside = new Map<string | null, T[]>()
  for (const page of pages) inside.set(page.parentId, [...(inside.get(page.parentId) ?? []), page])
  const all: T[] = []
  const add = (parentId: string | null): void => {
    for (const page of inside.get(parentId) ?? []) {
      all.push(page)
      add(page.id)
    }
  }
  add(null)
  return all
}

/** The newest saved documents of some ids. */
export async function newestDocuments(
  at: SiteData,
  ids: readonly string[],
): Promise<ReadonlyMap<string, Page>> {
  const rows = await at.manager.findBy(DocumentEntity, { siteId: at.siteId })
  const wanted = new Set(ids)
  const keys = rows.flatMap(({ id, version }) =>
    wanted.has(id) ? [{ documentId: id, number: version }] : [],
  )
  return findVersions(at, keys, readDocument)
}

/** The file of a picture as it came; where that was not kept, the largest that was made of it. */
export async function pictureSource(dataDir: string, row: MediaRow): Promise<string> {
  const original = originalFile(dataDir, row.id, row.revision)
  const isThere = (await stat(original).catch(() => undefined))?.isFile() ?? false
  return isThere ? original : join(pictureFolder(dataDir, row.id, row.revision), row.fallback)
}

export function fileSource(dataDir: string, row: FileRow): string {
  return join(dataDir, filePath(row))
}

/** The SHA-256 of a file, in hex, and how many bytes it has. */
export async function digestOfFile(
  path: string,
): Promise<{ readonly digest: string; readonly bytes: number }> {
  const hash = createHash('sha256')
  let bytes = 0
  await pipeline(createReadStream(path), async (chunks: AsyncIterable<Buffer>) => {
    for await (const chunk of chunks) {
      bytes += chunk.length
      hash.update(chunk)
    }
  })
  return { digest: hash.digest('hex'), bytes }
}

/** Media as an import compares them. Only those that may be the same are read: by their id or their name. */
export async function comparedMedia(
  dataDir: string,
  site: ReadSite,
  origins: ReadonlyMap<string, string>,
  mayBe: (medium: {
    readonly id: string
    readonly origin?: string | undefined
    readonly name: string
  }) => boolean,
): Promise<{ readonly pictures: readonly HereMedium[]; readonly files: readonly HereMedium[] }> {
  const compared = async <T extends { readonly id: string; readonly name: string }>(
    rows: readonly T[],
    source: (row: T) => Promise<string> | string,
  ): Promise<HereMedium[]> => {
    const all: HereMedium[] = []
    for (const row of rows) {
      const facts = { id: row.id, origin: origins.get(row.id), name: row.name }
      const digest = mayBe(facts)
        ? (await digestOfFile(await source(row)).catch(() => undefined))?.digest
        : undefined
      all.push({ ...facts, digest })
    }
    return all
  }
  return {
    pictures: await compared(site.pictures, (row) => pictureSource(dataDir, row)),
    files: await compared(site.files, (row) => fileSource(dataDir, row)),
  }
}
