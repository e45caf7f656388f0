/** Pictures that this installation has made before, for this site or another: their files are copied, not made again. */
import { copyFile } from 'node:fs/promises'
import { join } from 'node:path'
import { MediaEntity, type MediaRow } from '../db/rows.ts'
import { makeFolder } from '../http/make-folder.ts'
import type { Services } from '../services.ts'
import type { Derived } from './derive.ts'
import { pictureFolder } from './folders.ts'

/** A picture that was made of the same bytes in the same way (see `madeFrom`), or null. */
export async function findMadeBefore(
  { db }: Pick<Services, 'db'>,
  madeFrom: string,
): Promise<MediaRow | null> {
  // All sites are searched. The sender of the bytes is not told which site has the picture.
  return db.manager.findOneBy(MediaEntity, { madeFrom })
}

/** Copies the files of a picture to `folder`. Gives undefined, and may leave some of them there, when one is gone. */
export async function copyFiles(
  { dataDir }: Pick<Services, 'dataDir'>,
  { id, revision, width, height, widths, fallback }: MediaRow,
  folder: string,
): Promise<Derived | undefined> {
  const source = pictureFolder(dataDir, id, revision)
  await makeFolder(folder)
  try {
    for (const name of [...widths.flatMap((one) => [`${one}.webp`, `${one}.avif`]), fallback])
      await copyFile(join(source, name), join(folder, name))
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined
    throw error
  }
  return { width, height, widths, fallback }
}
