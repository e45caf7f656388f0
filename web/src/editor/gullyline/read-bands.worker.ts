/** Looks for what is wrong with measured bands, away from the screen. */
import { readBand, type PixelsOf } from '@gullyline/core'
import { readPixels } from '@gullyline/measuring'
import type { BandsAnswer, BandsTask } from './band-reader.ts'

const known = new Map<string, ReturnType<typeof readPixels>>()

async function pixelsOf(pictures: readonly string[]): Promise<PixelsOf> {
  return Object.fromEntries(
    await Promise.all(
      pictures.map(async (address) => {
        const asked = known.get(address) ?? readPixels(address)
        known.set(address, asked)
        return [address, await asked] as const
      }),
    ),
  )
}

async function answerTo({ number, setting, bands, pictures }: BandsTask): Promise<BandsAnswer> {
  try {
    const pixels = await pixelsOf(pictures)
    return {
      number,
      readings: new Map([...bands].map(([key, band]) => [key, readBand(band, pixels, setting)])),
    }
  } catch (error) {
    return { number, trouble: error instanceof Error ? error.message : String(error) }
  }
}

self.onmessage = async ({ data }: MessageEvent<BandsTask>) => self.postMessage(await answerTo(data))
