import type { Library, Picture, SiteFile } from '@gullyline/core'
import { In } from 'typeorm'
import { FileEntity, MediaEntity, type FileRow, type MediaRow } from '../db/rows.ts'
import { filePath, folderName } from './folders.ts'
import type { SiteData } from '../db/site-scope.ts'

/** All pictures of a site by id, as pages show them. */
export async function listPictures(at: SiteData): Promise<Record<string, Picture>> {
  return picturesById(
    await at.manager.find(MediaEntity, { where: { siteId: at.siteId }, order: { name: 'ASC' } }),
  )
}

/** Those of some ids that are there. */
export async function picturesOf(at: SiteData, ids: readonly string[]): Promise<Record<string, Picture>> {
  return picturesById(await at.manager.findBy(MediaEntity, { siteId: at.siteId, id: In(ids) }))
}

function picturesById(rows: readonly MediaRow[]): Record<string, Picture> {
  return Object.fromEntries(rows.map((row) => [row.id, toPicture(row)]))
}

function toPicture(row: MediaRow): Picture {
  const folder = folderName(row.id, row.revision)
  return {
    id: row.id,
    name: row.name,
    width: row.width,
    height: row.height,
    alt: row.alt,
    isDecoration: Boolean(row.isDecoration),
    sources: row.widths.map((width) => ({
      width,
      avif: `/media/${folder}/${width}.avif`,
      webp: `/media/${folder}/${width}.webp`,
    })),
    fallback: `/media/${folder}/${row.fallback}`,
  }
}

/** All files of a site by id. */
export async function listFiles(at: SiteData): Promise<Record<string, SiteFile>> {
  return filesById(
    await at.manager.find(FileEntity, { where: { siteId: at.siteId }, order: { name: 'ASC' } }),
  )
}

/** Those of some ids that are there. */
export async function filesOf(at: SiteData, ids: readonly string[]): Promise<Record<string, SiteFile>> {
  return filesById(await at.manager.findBy(FileEntity, { siteId: at.siteId, id: In(ids) }))
}

function filesById(rows: readonly FileRow[]): Record<string, SiteFile> {
  return Object.fromEntries(
    rows.map((row) => [
      row.id,
      { id: row.id, name: row.name, type: row.type, bytes: row.bytes, path: filePath(row) },
    ]),
  )
}

/** The whole library of a site. */
export async function describeLibrary(at: SiteData): Promise<Library> {
  return { pictures: await listPictures(at), files: await listFiles(at) }
}
