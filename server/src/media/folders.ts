import { randomInt } from 'node:crypto'
import { join } from 'node:path'
import type { FileRow } from '../db/rows.ts'

/** Where the files of a picture are. */
export function pictureFolder(dataDir: string, id: string, revision = 1): string {
  return join(dataDir, 'media', folderName(id, revision))
}

/** Largest number of an INT column. */
const MOST = 2 ** 31 - 1

/** The revision of a file that takes another's place. Drawn, so that two who replace it at once never write to one folder. */
export function newRevision(): number {
  return randomInt(2, MOST)
}

/** The folder's name, which addresses have as well. */
export function folderName(id: string, revision: number): string {
  return revision === 1 ? id : `${id}r${revision}`
}

/** Where the file is kept as it came. Outside of what is served. */
export function originalFile(dataDir: string, id: string, revision: number): string {
  return join(dataDir, 'originals', folderName(id, revision))
}

/** Where a file is: in the data folder, in the editor and on the published site alike. */
export function filePath({ id, revision, file }: Pick<FileRow, 'id' | 'revision' | 'file'>): string {
  return `/files/${folderName(id, revision)}/${file}`
}

export function fontFolder(dataDir: string): string {
  return join(dataDir, 'fonts')
}

/** Releases, and the link to the one that visitors see. */
export function releasesFolder(dataDir: string): string {
  return join(dataDir, 'live')
}

/** Where the files that releases show are, beside the releases. */
export const CONTENT = 'content'

/** The file there that says which site visitors find under which name. */
export const HOSTS = 'hosts'

export function hostsFile(dataDir: string): string {
  return join(releasesFolder(dataDir), HOSTS)
}

export function contentFolder(dataDir: string): string {
  return join(releasesFolder(dataDir), CONTENT)
}
