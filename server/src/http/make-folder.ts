import { mkdir } from 'node:fs/promises'
import { dirname } from 'node:path'

/**
 * Makes a folder and those above it that are missing. Of a disk that is read-only, Node.js says that a folder is missing
 * (ENOENT) when it makes several at once; made one by one, the error says what it is.
 */
export async function makeFolder(folder: string, mode = 0o777): Promise<void> {
  try {
    await mkdir(folder, { recursive: true, mode })
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT' || dirname(folder) === folder) throw error
    await makeFolder(dirname(folder), mode)
    await mkdir(folder, { mode })
  }
}
