/** Icons of a site for browser tabs and home screens: made of a picture of its library, or else of its name. */
import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from 'sharp'
import type { Look, Picture, SiteIcon } from '@gullyline/core'
import type { SiteRow } from '../db/rows.ts'
import { MOST_PIXELS } from '../http/limits.ts'
import type { ContentStore } from './content-store.ts'

/** Sides in px: tabs take the first, home screens the second. */
const SIZES = [
  [48, 'icon'],
  [180, 'apple-touch-icon'],
] as const

interface Icons {
  readonly icons: readonly SiteIcon[]
  /** Their files in the content store, by address. */
  readonly files: Readonly<Record<string, string>>
}

/** Puts the icons of a site into the content store, and returns the links to them. Those that are there are not made again. */
export async function writeIcons(
  store: ContentStore,
  { site, pictures }: { readonly site: SiteRow; readonly pictures: Readonly<Record<string, Picture>> },
  dataDir: string,
): Promise<Icons> {
  const picture = site.icon === null ? undefined : pictures[site.icon]
  const original = picture && (await readLargest(picture, dataDir))
  if (!picture || !original) return putSvg(store, letterIcon(site))
  if (picture.fallback.endsWith('.svg')) return putSvg(store, original.toString())
  const files: Record<string, string> = {}
  const icons = SIZES.map(([side, rel]): SiteIcon => {
    const href = named(`icon-${side}.png`, original)
    return { rel, href, type: 'image/png', sizes: `${side}x${side}` }
  })
  for (const [i, [side]] of SIZES.entries())
    files[icons[i]!.href] = await store.putMade(original, `-${side}.png`, () =>
      sharp(original, { limitInputPixels: MOST_PIXELS })
        .resize({ width: side, height: side, fit: 'cover' })
        .png({ palette: true })
        .toBuffer(),
    )
  return { icons, files }
}

async function putSvg(store: ContentStore, svg: string): Promise<Icons> {
  const href = named('icon.svg', svg)
  return {
    icons: [{ rel: 'icon', href, type: 'image/svg+xml', sizes: 'any' }],
    files: { [href]: await store.putText(svg, '.svg') },
  }
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

/** The first letter of the site's name on the colour of its main buttons. */
function letterIcon({ name, look }: SiteRow): string {
  const { surfaces, pageSurface } = look as Look
  const { accent, onAccent } = surfaces[pageSurface] ?? { accent: '#29322e', onAccent: '#ffffff' }
  const [letter = '?'] = [...name.trim().toUpperCase()].filter((sign) => /[\p{L}\p{N}]/u.test(sign))
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" rx="6" fill="${accent}"/>` +
    `<text x="16" y="23" text-anchor="middle" font-family="Georgia,serif" font-size="21" font-weight="700" fill="${onAccent}">${letter}</text></svg>\n`
  )
}
