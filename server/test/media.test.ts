import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import sharp, { type Color } from 'sharp'
import { derivePicture } from '../src/media/derive.ts'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'gullyline-media-'))
})
afterAll(() => rm(folder, { recursive: true, force: true }))

const painted = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#204060' } })

const solid = (width: number, height: number, background: Color) =>
  sharp({ create: { width, height, channels: 4, background } })
    .png()
    .toBuffer()

/** 400 by 260 pixels that differ from their neighbours, in all colours. */
const photograph = () => {
  const pixels = Uint8Array.from({ length: 400 * 260 * 3 }, (_, i) => (i * i * 7 + (i >> 9) * 31) & 255)
  return sharp(pixels, { raw: { width: 400, height: 260, channels: 3 } }).blur(1.5)
}

describe('the files made of a picture', () => {
  test('are never wider than the picture, and come in both modern formats and one to fall back on', async () => {
    const target = join(folder, 'small')
    const derived = await derivePicture(await painted(600, 300).jpeg().toBuffer(), target)
    expect(derived).toEqual({ width: 600, height: 300, widths: [320, 480, 600], fallback: 'fallback.jpg' })
    expect((await readdir(target)).sort()).toEqual([
      '320.avif',
      '320.webp',
      '480.avif',
      '480.webp',
      '600.avif',
      '600.webp',
      'fallback.jpg',
    ])
    for (const file of await readdir(target)) {
      const { width, height } = await sharp(join(target, file)).metadata()
      expect(width).toBeLessThanOrEqual(600)
      expect(Math.abs(width / height - 2)).toBeLessThan(0.02)
    }
  })

  test('of a picture smaller than the smallest width is the picture itself', async () => {
    expect(
      (await derivePicture(await painted(90, 60).png().toBuffer(), join(folder, 'tiny'))).widths,
    ).toEqual([90])
  })

  test('stand upright as the camera meant it, and say nothing of where it was', async () => {
    const redLeft = { input: await solid(200, 200, '#e00000'), left: 0, top: 0 }
    const lying = await painted(400, 200)
      .composite([redLeft])
      .withExif({
        IFD0: { Copyright: 'somebody' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '54/1 30/1 0/1' },
      })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
    const target = join(folder, 'turned')
    expect(await derivePicture(lying, target)).toMatchObject({ width: 200, height: 400 })
    for (const file of await readdir(target)) {
      const { exif, orientation, width, height } = await sharp(join(target, file)).metadata()
      expect({ file, exif, orientation }).toEqual({ file, exif: undefined, orientation: undefined })
      // Orientation 6: the column that is stored first is seen at the top (Exif 2.32, CIPA DC-008, 4.6.4 A).
      const rows = await sharp(join(target, file)).removeAlpha().raw().toBuffer()
      const redAt = (row: number): number => rows[(row * width + (width >> 1)) * 3]!
      expect(redAt(height >> 2)).toBeGreaterThan(180)
      expect(redAt((height * 3) >> 2)).toBeLessThan(80)
    }
  })

  test('of what can be seen through can be seen through, if it has no colours too', async () => {
    const grey = await sharp(await solid(60, 40, { r: 90, g: 90, b: 90, alpha: 0.5 }))
      .toColourspace('b-w')
      .png()
      .toBuffer()
    expect((await sharp(grey).metadata()).channels).toBe(2)
    const target = join(folder, 'grey')
    expect((await derivePicture(grey, target)).fallback).toBe('fallback.png')
    for (const file of await readdir(target))
      expect({ file, alpha: (await sharp(join(target, file)).metadata()).hasAlpha }).toEqual({
        file,
        alpha: true,
      })
  })

  test.each([
    ['a photograph', () => photograph().jpeg().toBuffer()],
    ['one for print', () => photograph().toColourspace('cmyk').jpeg().toBuffer()],
    ['one of another gamut', () => photograph().withIccProfile('p3').jpeg().toBuffer()],
    ['one without colours', () => photograph().toColourspace('b-w').png().toBuffer()],
    ['one of 16 bits', () => photograph().toColourspace('rgb16').png().toBuffer()],
    ['one of few colours', () => photograph().png({ palette: true, colours: 16 }).toBuffer()],
    ['one that can be seen through', () => photograph().ensureAlpha(0.4).png().toBuffer()],
  ])('of %s are as if each were made from the original', async (_, take) => {
    const original = await take()
    const target = await mkdtemp(join(folder, 'kind'))
    const { fallback } = await derivePicture(original, target, 0)
    const at320 = () => sharp(original).autoOrient().resize({ width: 320 })
    const at400 = () => sharp(original).autoOrient().resize({ width: 400 })
    const expected = {
      '320.webp': at320().webp({ quality: 78, effort: 0 }),
      '320.avif': at320().avif({ quality: 58, effort: 0 }),
      [fallback]: fallback.endsWith('png') ? at400().png() : at400().jpeg({ quality: 80, mozjpeg: true }),
    }
    for (const [file, direct] of Object.entries(expected)) {
      const made = await readFile(join(target, file))
      expect({ file, isSame: made.equals(await direct.toBuffer()) }).toEqual({ file, isSame: true })
    }
  })

  test('what is not a picture is refused', async () => {
    await expect(
      derivePicture(Buffer.from('PK\u0003\u0004 not a picture'), join(folder, 'zip')),
    ).rejects.toThrow()
  })
})
