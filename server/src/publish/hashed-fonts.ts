import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Look } from '@gullyline/core'
import { fontFolder } from '../media/folders.ts'

/** What each font file of a look is called where it is published: by its content, so that browsers may keep it for ever. */
export async function hashedFonts(look: Look, dataDir: string): Promise<Record<string, string>> {
  const files = [look.fonts.words, look.fonts.titles].flatMap((family) =>
    family.files.map(({ file }) => file),
  )
  const named = await Promise.all(
    [...new Set(files)].map(async (file) => {
      const bytes = await readFile(join(fontFolder(dataDir), file)).catch(() => undefined)
      if (!bytes) return []
      const hash = createHash('sha256').update(bytes).digest('hex').slice(0, 8)
      return [[file, file.replace(/(\.\w+)$/, `.${hash}$1`)] as const]
    }),
  )
  return Object.fromEntries(named.flat())
}
