/** Files that pages link to: adding and replacing them, and where they are. */
import { rm, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { anchorFrom } from '@gullyline/core'
import { FileEntity, type FileRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { newId } from '../http/new-id.ts'
import { makeFolder } from '../http/make-folder.ts'
import type { Services } from '../services.ts'
import { filePath, newRevision } from './folders.ts'
import { libraryName, type Upload } from './library.ts'
import { readFileType } from './read-file.ts'
import type { SiteData, SiteScope } from '../db/site-scope.ts'

export async function findFile(at: SiteData, id: string): Promise<FileRow> {
  const row = await at.manager.findOneBy(FileEntity, { id, siteId: at.siteId })
  if (!row) throw new Refused('not-found', 'There is no such file in the library.')
  return row
}

/** Adds a file; gives its id. */
export async function addFile(services: Services, site: SiteScope, upload: Upload): Promise<string> {
  const id = newId()
  const made = await keepFile(services, { id, revision: 1 }, upload)
  await site.change(['site'], (at) =>
    at.manager.insert(FileEntity, { siteId: at.siteId, previous: null, ...made }),
  )
  return id
}

/** Puts another file in the place of one, wherever it is linked to. Its address is new, since browsers keep the old one. */
export async function replaceFile(
  services: Services,
  site: SiteScope,
  id: string,
  upload: Upload,
): Promise<void> {
  const before = await site.read((at) => findFile(at, id))
  const made = await keepFile(services, { id, revision: newRevision() }, upload)
  const changed = await site.change(['site'], (at) =>
    at.manager.update(
      FileEntity,
      { id, siteId: at.siteId, revision: before.revision },
      { ...made, previous: before.revision },
    ),
  )
  if (changed.affected === 1) {
    // Releases have their own copies, and no page that is open links to more than one replacement ago.
    if (before.previous !== null) await forgetFile(services.dataDir, { ...before, revision: before.previous })
    return
  }
  await forgetFile(services.dataDir, made)
  throw new Refused('stale-save', 'Somebody else replaced this file meanwhile. Nothing was changed.')
}

/** Keeps the bytes in the data folder, and gives the row that tells of them. Refuses what is of no kind that is taken. */
export async function keepFile(
  { dataDir }: Pick<Services, 'dataDir'>,
  { id, revision }: Pick<FileRow, 'id' | 'revision'>,
  { name, bytes, signal }: Upload,
): Promise<Omit<FileRow, 'siteId' | 'previous'>> {
  const type = await readFileType(name, bytes)
  const kept = libraryName(name, `File.${type}`)
  const row = { id, revision, name: kept, type, bytes: bytes.length, file: fileName(kept, type) }
  const target = join(dataDir, filePath(row))
  try {
    await makeFolder(dirname(target))
    await writeFile(target, bytes)
    if (signal.aborted) throw new Refused('not-valid', 'The upload was cancelled. Nothing was added.')
  } catch (error) {
    await forgetFile(dataDir, row)
    throw error
  }
  return row
}

/** Removes what was kept of a file that nobody gets to see. */
export async function forgetFile(dataDir: string, row: Parameters<typeof filePath>[0]): Promise<void> {
  const folder = dirname(join(dataDir, filePath(row)))
  // What was not even begun can't be removed, and need not be.
  await rm(folder, { recursive: true, force: true }).catch(() => undefined)
}

/** A name that is safe in any folder and address, and tells what the file is. */
function fileName(name: string, type: string): string {
  const stem = name.replace(/\.[^.]*$/, '')
  return `${anchorFrom(stem) ?? 'file'}.${type}`
}
