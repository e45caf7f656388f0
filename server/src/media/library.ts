/** The media library: adding, describing and replacing pictures. */
import { rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { cutToEnd, type MediaRequest } from '@gullyline/core'
import { MediaEntity, type MediaRow } from '../db/rows.ts'
import { Refused } from '../http/errors.ts'
import { refuseStale } from '../http/refuse-stale.ts'
import { faultWords } from '../http/storage-fault.ts'
import { newId } from '../http/new-id.ts'
import { makeFolder } from '../http/make-folder.ts'
import type { Services } from '../services.ts'
import { derivePicture, keepDrawing, madeFrom, type Derived } from './derive.ts'
import { copyFiles, findMadeBefore } from './made-before.ts'
import { newRevision, originalFile, pictureFolder } from './folders.ts'
import { readPicture } from './read-picture.ts'
import type { SiteData, SiteScope } from '../db/site-scope.ts'

/** Pictures are made one after another: each takes all cores and much memory, and the server must stay there for people. */
let queue: Promise<unknown> = Promise.resolve()

function inTurn<T>(act: () => Promise<T>): Promise<T> {
  const result = queue.then(act)
  queue = result.catch(() => undefined)
  return result
}

export interface Upload {
  readonly name: string
  readonly bytes: Buffer
  /** Set when whoever sent it has gone: then nothing is kept. */
  readonly signal: AbortSignal
}

/** Adds a picture; gives its id. */
export async function addPicture(services: Services, site: SiteScope, upload: Upload): Promise<string> {
  const id = newId()
  const made = await makePicture(services, { id, revision: 1 }, upload)
  await site.change(['site'], async (at) => {
    const row = {
      id,
      siteId: at.siteId,
      name: libraryName(upload.name, 'Picture'),
      alt: '',
      isDecoration: false,
      revision: 1,
      previous: null,
      ...made,
    }
    await at.manager.insert(MediaEntity, row)
  })
  return id
}

/** Gives a picture another file, everywhere it is used. Its words stay. The files have new names, since browsers keep the old ones for ever. */
export async function replacePicture(
  services: Services,
  site: SiteScope,
  id: string,
  upload: Upload,
): Promise<void> {
  const before = await site.read((at) => findPicture(at, id))
  const revision = newRevision()
  const made = await makePicture(services, { id, revision }, upload)
  const changed = await site.change(['site'], (at) =>
    at.manager.update(
      MediaEntity,
      { id, siteId: at.siteId, revision: before.revision },
      { ...made, revision, previous: before.revision },
    ),
  )
  if (changed.affected === 1) {
    // Releases have their own copies, and no page that is open shows more than one replacement ago.
    if (before.previous !== null) await forgetPicture(services, id, before.previous)
    return
  }
  await forgetPicture(services, id, revision)
  throw new Refused('stale-save', 'Somebody else replaced this picture meanwhile. Nothing was changed.')
}

/** Removes what was made of a picture that nobody gets to see, or nobody any more. */
export async function forgetPicture(
  { dataDir }: Pick<Services, 'dataDir'>,
  id: string,
  revision: number,
): Promise<void> {
  // What was not even begun can't be removed, and need not be.
  const ignore = (): undefined => undefined
  await rm(pictureFolder(dataDir, id, revision), { recursive: true, force: true }).catch(ignore)
  await rm(originalFile(dataDir, id, revision), { force: true }).catch(ignore)
}

interface Making {
  /** Refuses a drawing of which anything would be taken out: it was made by somebody who knows what drawings may hold. */
  readonly isCleanAlready?: boolean
}

/** What the row of a picture says of its files. */
type Made = Derived & Pick<MediaRow, 'madeFrom'>

/** Makes the files of a picture, which nobody sees until a row tells of them. */
export async function makePicture(
  services: Pick<Services, 'db' | 'dataDir' | 'pictureEffort'>,
  { id, revision }: Pick<MediaRow, 'id' | 'revision'>,
  { name, bytes, signal }: Upload,
  { isCleanAlready = false }: Making = {},
): Promise<Made> {
  const picture = await readPicture(bytes)
  if (isCleanAlready && !picture.bytes.equals(bytes))
    throw new Refused(
      'not-valid',
      `The drawing “${libraryName(name, 'Picture')}” holds something that could run. Nothing was added.`,
    )
  const folder = pictureFolder(services.dataDir, id, revision)
  const { pictureEffort } = services
  const key = picture.type === 'raster' ? await madeFrom(picture.bytes, pictureEffort) : null
  // Asked for here: that the database can't be reached says nothing of the picture.
  const before = key === null ? null : await findMadeBefore(services, key)
  return inTurn(async () => {
    try {
      signal.throwIfAborted()
      const copied = before && (await copyFiles(services, before, folder))
      const made =
        picture.type === 'drawing'
          ? await keepDrawing(picture, folder)
          : (copied ?? (await derivePicture(picture.bytes, folder, pictureEffort)))
      signal.throwIfAborted()
      // As it came, for crops and formats to come; nothing serves it.
      const original = originalFile(services.dataDir, id, revision)
      await makeFolder(join(original, '..'), 0o700)
      await writeFile(original, picture.bytes, { mode: 0o600 })
      return { ...made, madeFrom: key }
    } catch (error) {
      await forgetPicture(services, id, revision)
      if (error instanceof Refused) throw error
      if (signal.aborted) throw new Refused('not-valid', 'The upload was cancelled. Nothing was added.')
      const words = faultWords(error)
      if (words !== undefined) throw new Refused('storage', words)
      throw new Refused(
        'not-valid',
        'The picture could not be opened; the file may be damaged. It was not added.',
      )
    }
  })
}

/** Changes what the library says of a picture. Refuses, with `stale-save`, what somebody else changed meanwhile. */
export async function describePicture(at: SiteData, id: string, given: MediaRequest): Promise<void> {
  const row = await at.manager.findOne(MediaEntity, {
    where: { id, siteId: at.siteId },
    lock: { mode: 'pessimistic_write' },
  })
  if (!row) throw noPicture()
  const { name, alt, isDecoration, was = {} } = given
  const now = { name: row.name, alt: row.alt, isDecoration: Boolean(row.isDecoration) }
  refuseStale({ now, was: { ...was }, wanted: { name, alt, isDecoration }, by: 'Somebody else' })
  const changed = {
    ...(name === undefined ? {} : { name: libraryName(name, 'Picture') }),
    ...(alt === undefined ? {} : { alt: checkedAlt(alt) }),
    ...(isDecoration === undefined ? {} : { isDecoration }),
  }
  if (Object.keys(changed).length > 0)
    await at.manager.update(MediaEntity, { id, siteId: at.siteId }, changed)
}

export async function findPicture(at: SiteData, id: string): Promise<MediaRow> {
  const row = await at.manager.findOneBy(MediaEntity, { id, siteId: at.siteId })
  if (!row) throw noPicture()
  return row
}

function noPicture(): Refused {
  return new Refused('not-found', 'There is no such picture in the library.')
}

/** As the column that holds it. */
const LONGEST_ALT = 1000

function checkedAlt(alt: string): string {
  const line = oneLine(alt)
  if (line.length <= LONGEST_ALT) return line
  throw new Refused(
    'not-valid',
    `An alternative text has at most ${LONGEST_ALT} characters; this has ${line.length}. Nothing was changed.`,
  )
}

/** What the library calls something: one line, the end of it where it is too long, since that has the ending. */
export function libraryName(name: string, otherwise: string): string {
  return cutToEnd(oneLine(name), 200) || otherwise
}

function oneLine(words: string): string {
  return words.replace(/[\u0000-\u001f\u007f]+/g, ' ').trim()
}
