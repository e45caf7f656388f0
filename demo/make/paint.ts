/** A picture computed point by point. Coordinates run from 0 to 1 down the height, and from 0 to the ratio across. */
import sharp from 'sharp'

export type Colour = readonly [number, number, number]
export type Shade = (x: number, y: number, under: Colour) => Colour

export interface Frame {
  readonly width: number
  readonly height: number
}

/** A colour written as #rrggbb, in light from 0 to 1. */
export function hex(value: string): Colour {
  const at = (i: number) => parseInt(value.slice(i, i + 2), 16) / 255
  return [at(1), at(3), at(5)]
}

export function blend(a: Colour, b: Colour, share: number): Colour {
  return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share]
}

/** Adds light, as a lamp or a star does. */
export function glow(under: Colour, light: Colour, strength: number): Colour {
  return [under[0] + light[0] * strength, under[1] + light[1] * strength, under[2] + light[2] * strength]
}

/** Paints layers over each other, the first lowest, and writes a JPEG. A breath of grain keeps skies from banding. */
export async function paint(file: string, frame: Frame, layers: readonly Shade[]): Promise<void> {
  const { width, height } = frame
  const pixels = Buffer.alloc(width * height * 3)
  let grain = 1
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      let colour: Colour = [0, 0, 0]
      for (const layer of layers) colour = layer(column / height, row / height, colour)
      grain = (Math.imul(grain, 1103515245) + 12345) >>> 0
      const shift = (grain / 4294967296 - 0.5) * 2.4
      const at = (row * width + column) * 3
      for (let i = 0; i < 3; i++)
        pixels[at + i] = Math.max(0, Math.min(255, Math.round(colour[i]! * 255 + shift)))
    }
  }
  await sharp(pixels, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 86, mozjpeg: true })
    .toFile(file)
}
