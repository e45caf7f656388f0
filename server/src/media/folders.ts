import { join } from 'node:path'

/** Where the files of a picture are. */
export function pictureFolder(dataDir: string, id: string, revision = 1): string {
  return join(dataDir, 'media', folderName(id, revision))
}

/** The folder's name, which addresses have as well. */
export function folderName(id: string, revision: number): string {
  return revision === 1 ? id : `${id}r${revision}`
}

/** Where the file is kept as it came. Outside of what is served. */
export function originalFile(dataDir: string, id: string, revision: number): string {
  return join(dataDir, 'originals', folderName(id, revision))
}

export function fontFolder(dataDir: string): string {
  return join(dataDir, 'fonts')
}
