/** Pictures that this installation has made before, for this site or another: their files are copied, not made again. */
import { copyFile } from 'node:fs/promises'
import { join } from 'node:path'
import { MediaEntity } from '../db/rows.ts'
import { makeFolder } from '../http/make-folder.ts'
import type { Services } from '../services.ts'
import type { Derived } from './derive.ts'
import { pictureFolder } from './folders.ts'

/**
 * Copies to `folder` what was made of the same bytes in the same way (see `madeFrom`). Gives undefined, and may leave some
 * of the files, where nothing was, or where it is taken away in the same moment.
 */
export async function copyMadeBefore(
  { db, dataDir }: Pick<Services, 'db' | 'dataDir'>,
  madeFrom: string,
  folder: string,
): Promise<Derived | undefined> {
  // Of all sites: whoever has the same bytes learns nothing of a site that shows them as well.
  const before = await db.manager.findOneBy(MediaEntity, { madeFrom })
  if (!before) return undefined
  const { id, revision, width, height, widths, fallback } = before
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
