import { createHash, webcrypto } from 'node:crypto'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import sharp, { type Sharp } from 'sharp'
import { makeFolder } from '../http/make-folder.ts'
import { MOST_PIXELS } from '../http/limits.ts'

/** Widths in px in which pictures are kept: each about one and a half times the one before. */
const WIDTHS = [320, 480, 720, 1080, 1600, 2400] as const
const FALLBACK_WIDTH = 1080
/** From 0, quick and large, to 9, slow and small: measured on our pictures, 2 takes twice the time of 1 for two thirds of its bytes. */
const AVIF_EFFORT = 2
/** From 0 to 6. */
const WEBP_EFFORT = 4

/** From 1 to 100, of each format. */
const QUALITY = { webp: 78, avif: 58, jpeg: 80 } as const

/**
 * Tells pictures of which the same files are made: from the same bytes, in the same way. 64 hexadecimal digits (SHA-256,
 * FIPS 180-4); `effort` as of `derivePicture`.
 */
export async function madeFrom(original: Buffer, effort: number = AVIF_EFFORT): Promise<string> {
  // In a thread: 40 MB would keep others waiting.
  const bytes = await webcrypto.subtle.digest('SHA-256', original)
  const way = JSON.stringify([WIDTHS, FALLBACK_WIDTH, QUALITY, WEBP_EFFORT, effort])
  return createHash('sha256').update(way).update(new Uint8Array(bytes)).digest('hex')
}

/** What is known of a picture after its files were made. */
export interface Derived {
  readonly width: number
  readonly height: number
  readonly widths: number[]
  /** The file for browsers that read none of the modern formats. */
  readonly fallback: string
}

/**
 * Makes the files of one picture in `folder`: AVIF and WebP in every width that is not wider than the original, and a
 * JPEG or, where it can be seen through, a PNG to fall back on. Orientation is applied; metadata is dropped. `effort` is that of AVIF, 0 to 9;
 * with 0, WebP is written as quickly as it can be.
 */
export async function derivePicture(
  original: Buffer,
  folder: string,
  effort: number = AVIF_EFFORT,
): Promise<Derived> {
  await makeFolder(folder)
  // Written by us: of a full disk, sharp says no more than that writing failed, which a damaged picture does as well.
  const put = async (name: string, picture: Sharp) => writeFile(join(folder, name), await picture.toBuffer())
  const upright = () => sharp(original, { limitInputPixels: MOST_PIXELS }).autoOrient()
  const { autoOrient, hasAlpha } = await upright().metadata()
  const { width, height } = autoOrient
  const webp = { quality: QUALITY.webp, effort: effort === 0 ? 0 : WEBP_EFFORT }
  const smaller = WIDTHS.filter((one) => one < width)
  const widths = [...smaller, ...(width <= WIDTHS.at(-1)! ? [width] : [])]
  const fallback = hasAlpha ? 'fallback.png' : 'fallback.jpg'
  for (const one of widths) {
    // One after the other, since each opens the original, which may take 400 MB. Scaled once for all formats, as pixels:
    // a JPEG that is written in between and read again would lose twice.
    const { data, info } = await upright().resize({ width: one }).raw().toBuffer({ resolveWithObject: true })
    // Without the rest of `info`, which says "premultiplied" of pixels that no longer are.
    const raw = { width: info.width, height: info.height, channels: info.channels }
    const scaled = () => sharp(data, { raw })
    await put(`${one}.webp`, scaled().webp(webp))
    await put(`${one}.avif`, scaled().avif({ quality: QUALITY.avif, effort }))
    if (one === Math.min(FALLBACK_WIDTH, width))
      await put(fallback, hasAlpha ? scaled().png() : scaled().jpeg({ quality: QUALITY.jpeg, mozjpeg: true }))
  }
  return { width, height, widths, fallback }
}

/** Keeps a cleaned drawing as it is: it is sharp at every width. */
export async function keepDrawing(
  { bytes, width, height }: { readonly bytes: Buffer; readonly width: number; readonly height: number },
  folder: string,
): Promise<Derived> {
  await makeFolder(folder)
  await writeFile(join(folder, 'fallback.svg'), bytes)
  return { width, height, widths: [], fallback: 'fallback.svg' }
}
