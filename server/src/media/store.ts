import type { Picture, SiteFile } from '@gullyline/core'
import { FileEntity, MediaEntity, type MediaRow } from '../db/rows.ts'
import { filePath, folderName } from './folders.ts'
import type { SiteData } from '../db/site-scope.ts'

/** All pictures of a site by id, as pages show them. */
export async function listPictures(at: SiteData): Promise<Record<string, Picture>> {
  const rows = await at.manager.find(MediaEntity, { where: { siteId: at.siteId }, order: { name: 'ASC' } })
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
  const rows = await at.manager.find(FileEntity, { where: { siteId: at.siteId }, order: { name: 'ASC' } })
  return Object.fromEntries(
    rows.map((row) => [
      row.id,
      { id: row.id, name: row.name, type: row.type, bytes: row.bytes, path: filePath(row) },
    ]),
  )
}
