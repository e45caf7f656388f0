import { mkdtemp, readdir, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import { derivePicture } from '../src/media/derive.ts'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'gullyline-media-'))
})
afterAll(() => rm(folder, { recursive: true, force: true }))

const painted = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#204060' } })

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
    const lying = await painted(400, 200)
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
      const { exif, orientation } = await sharp(join(target, file)).metadata()
      expect({ file, exif, orientation }).toEqual({ file, exif: undefined, orientation: undefined })
    }
  })

  test('what is not a picture is refused', async () => {
    await expect(
      derivePicture(Buffer.from('PK\u0003\u0004 not a picture'), join(folder, 'zip')),
    ).rejects.toThrow()
  })
})
