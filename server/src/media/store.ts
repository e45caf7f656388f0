import type { EntityManager } from 'typeorm'
import type { Picture, SiteFile } from '@gullyline/core'
import { FileEntity, MediaEntity, type MediaRow } from '../db/rows.ts'
import { filePath, folderName } from './folders.ts'

/** All pictures of a site by id, as pages show them. */
export async function listPictures(manager: EntityManager, siteId: string): Promise<Record<string, Picture>> {
  const rows = await manager.find(MediaEntity, { where: { siteId }, order: { name: 'ASC' } })
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
export async function listFiles(manager: EntityManager, siteId: string): Promise<Record<string, SiteFile>> {
  const rows = await manager.find(FileEntity, { where: { siteId }, order: { name: 'ASC' } })
  return Object.fromEntries(
    rows.map((row) => [
      row.id,
      { id: row.id, name: row.name, type: row.type, bytes: row.bytes, path: filePath(row) },
    ]),
  )
}
