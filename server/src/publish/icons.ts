/** Icons of a site for browser tabs and home screens: made of a picture of its library, or else of its name. */
import { createHash } from 'node:crypto'
import { link, readFile, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import sharp from 'sharp'
import type { Look, Picture, SiteIcon } from '@gullyline/core'
import type { SiteRow } from '../db/rows.ts'
import { makeFolder } from '../http/make-folder.ts'
import { MOST_PIXELS } from '../media/limits.ts'
import { writeCompressed } from './write-compressed.ts'

/** Sides in px: tabs take the first, home screens the second. */
const SIZES = [
  [48, 'icon'],
  [180, 'apple-touch-icon'],
] as const

interface Folders {
  readonly folder: string
  readonly before: string
}

/** Writes the icons of a site into a folder, and returns the links to them. Icons that the release before has are linked. */
export async function writeIcons(
  to: Folders,
  { site, pictures }: { readonly site: SiteRow; readonly pictures: Readonly<Record<string, Picture>> },
  dataDir: string,
): Promise<readonly SiteIcon[]> {
  const picture = site.icon === null ? undefined : pictures[site.icon]
  const original = picture && (await readLargest(picture, dataDir))
  if (!picture || !original) return [await writeLetter(to, site)]
  if (picture.fallback.endsWith('.svg')) {
    const href = named('icon.svg', original)
    await writeCompressed(to, href, original.toString())
    return [{ rel: 'icon', href, type: 'image/svg+xml', sizes: 'any' }]
  }
  return Promise.all(
    SIZES.map(async ([side, rel]): Promise<SiteIcon> => {
      const href = named(`icon-${side}.png`, original)
      await writeOnce(to, href, () =>
        sharp(original, { limitInputPixels: MOST_PIXELS })
          .resize({ width: side, height: side, fit: 'cover' })
          .png({ palette: true })
          .toBuffer(),
      )
      return { rel, href, type: 'image/png', sizes: `${side}x${side}` }
    }),
  )
}

/** The largest file of a picture that is there; undefined if none is. */
async function readLargest({ sources, fallback }: Picture, dataDir: string): Promise<Buffer | undefined> {
  for (const path of [sources.at(-1)?.webp, fallback])
    if (path !== undefined) {
      const bytes = await readFile(join(dataDir, path)).catch(() => undefined)
      if (bytes) return bytes
    }
  return undefined
}

function named(name: string, content: string | Buffer): string {
  const hash = createHash('sha256').update(content).digest('hex').slice(0, 8)
  return `/icons/${name.replace(/(\.\w+)$/, `.${hash}$1`)}`
}

async function writeOnce(
  { folder, before }: Folders,
  path: string,
  make: () => Promise<Buffer>,
): Promise<void> {
  const file = join(folder, path)
  await makeFolder(dirname(file))
  const isThere = await link(join(before, path), file).then(
    () => true,
    () => false,
  )
  if (!isThere) await writeFile(file, await make())
}

/** The first letter of the site's name on the colour of its main buttons. */
async function writeLetter(to: Folders, { name, look }: SiteRow): Promise<SiteIcon> {
  const { surfaces, pageSurface } = look as Look
  const { accent, onAccent } = surfaces[pageSurface] ?? { accent: '#29322e', onAccent: '#ffffff' }
  const [letter = '?'] = [...name.trim().toUpperCase()].filter((sign) => /[\p{L}\p{N}]/u.test(sign))
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" rx="6" fill="${accent}"/>` +
    `<text x="16" y="23" text-anchor="middle" font-family="Georgia,serif" font-size="21" font-weight="700" fill="${onAccent}">${letter}</text></svg>\n`
  const href = named('icon.svg', svg)
  await writeCompressed(to, href, svg)
  return { rel: 'icon', href, type: 'image/svg+xml', sizes: 'any' }
}
