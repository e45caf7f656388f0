/** Reads the pixels of pictures, made small: contrast is asked for over areas, and not over single pixels. */
import type { Pixels } from '@gullyline/core'

const WIDEST = 320

/** The pixels of the picture at an address of this origin; undefined where there is none that can be read. */
export async function readPixels(address: string): Promise<Pixels | undefined> {
  try {
    const answer = await fetch(address)
    if (!answer.ok) return undefined
    const whole = await createImageBitmap(await answer.blob())
    const scale = Math.min(1, WIDEST / whole.width)
    const width = Math.max(1, Math.round(whole.width * scale))
    const height = Math.max(1, Math.round(whole.height * scale))
    const canvas = new OffscreenCanvas(width, height)
    const context = canvas.getContext('2d')
    if (!context) return undefined
    context.imageSmoothingQuality = 'high'
    context.drawImage(whole, 0, 0, width, height)
    whole.close()
    return { width, height, data: context.getImageData(0, 0, width, height).data }
  } catch {
    // A picture that can't be read has no contrast that could be told.
    return undefined
  }
}
